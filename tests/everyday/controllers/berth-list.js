(function () {
  'use strict';

  angular.module('desk.berths', []).component('berthList', {
    template: `
      <section class="berths" ng-class="{ busy: $ctrl.taken > 0 }">
        <h3>{{ $ctrl.harbour | uppercase }}</h3>
        <p ng-if="!$ctrl.berths.length" class="none">No berth</p>
        <ul ng-if="$ctrl.berths.length">
          <li ng-repeat="berth in $ctrl.berths track by berth.id" ng-class="{ chosen: berth.id === $ctrl.chosen }">
            <button type="button" ng-click="$ctrl.choose(berth)" ng-disabled="berth.taken">
              {{ $index + 1 }}. {{ berth.name }}
            </button>
            <small ng-show="berth.taken">taken</small>
          </li>
        </ul>
        <p class="sum">{{ $ctrl.free() }} of {{ $ctrl.berths.length }} free</p>
      </section>
    `,
    bindings: {
      harbour: '@',
      berths: '<',
      onChoose: '&',
    },
    controller: function BerthListController() {
      var ctrl = this;
      ctrl.chosen = null;
      ctrl.taken = 0;

      ctrl.$onChanges = function (changes) {
        if (changes.berths) {
          ctrl.taken = (ctrl.berths || []).filter(function (berth) { return berth.taken; }).length;
        }
      };

      ctrl.choose = function (berth) {
        ctrl.chosen = berth.id;
        ctrl.onChoose({ berth: berth });
      };

      ctrl.free = function () {
        return (ctrl.berths || []).length - ctrl.taken;
      };
    },
  });
})();
