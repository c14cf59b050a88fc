(function () {
  'use strict';

  angular.module('desk.piers', []).component('pierPicker', {
    require: { form: '?^pierForm' },
    bindings: { piers: '<', pier: '<', onPick: '&' },
    template: `
      <div class="picker">
        <input type="text" class="find" ng-model="$ctrl.asked" ng-focus="$ctrl.open = true" ng-blur="$ctrl.close()">
        <ul ng-show="$ctrl.open">
          <li ng-repeat="one in $ctrl.found() track by one" ng-mousedown="$ctrl.pick(one)">{{ one }}</li>
        </ul>
        <p>{{ ::$ctrl.pier }} {{ $ctrl.picked || 'no pier' }}</p>
      </div>
    `,
    controller: function PierPickerController($element, $timeout) {
      var vm = this;
      vm.asked = '';
      vm.open = false;
      vm.picked = '';

      vm.$postLink = function () {
        $element.find('input').attr('autocomplete', 'off');
      };

      vm.found = function () {
        return (vm.piers || []).filter(function (one) { return one.indexOf(vm.asked) >= 0; });
      };

      vm.pick = function (one) {
        vm.picked = one;
        vm.onPick({ pier: one });
        if (vm.form) {
          vm.form.changed(one);
        }
      };

      vm.close = function () {
        $timeout(function () { vm.open = false; }, 100);
      };
    },
  });
})();
