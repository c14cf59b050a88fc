(function () {
  'use strict';

  angular
    .module('desk.routes', [])
    .component('routeTabs', {
      bindings: { routes: '<', current: '<', onSelect: '&' },
      template: `
        <nav role="tablist" ng-keydown="$ctrl.move($event)">
          <button type="button" role="tab" ng-repeat="route in $ctrl.routes track by route.id"
            ng-attr-aria-selected="{{ route.id === $ctrl.selected }}" ng-class="{ on: route.id === $ctrl.selected }"
            ng-click="$ctrl.select(route)">{{ route.title | limitTo:12 }}</button>
        </nav>
        <div role="tabpanel" ng-if="$ctrl.route()">
          <h4>{{ $ctrl.route().title }}</h4>
          <ul><li ng-repeat="stop in $ctrl.route().stops">{{ stop }}<span ng-if="!$last">, </span></li></ul>
        </div>
      `,
      controller: function RouteTabsController($scope) {
        var vm = this;
        vm.selected = null;
        vm.moves = 0;

        $scope.$watch('$ctrl.moves', function (now, before) {
          if (now !== before && vm.route()) {
            vm.onSelect({ id: vm.selected });
          }
        });

        vm.$onChanges = function (changes) {
          if (changes.current) {
            vm.selected = vm.current;
          }
        };

        vm.route = function () {
          return (vm.routes || []).filter(function (route) { return route.id === vm.selected; })[0];
        };

        vm.select = function (route) {
          vm.selected = route.id;
          vm.moves++;
        };

        vm.move = function (event) {
          var ids = (vm.routes || []).map(function (route) { return route.id; });
          var at = ids.indexOf(vm.selected);
          if (event.key === 'ArrowRight' && at < ids.length - 1) {
            vm.selected = ids[at + 1];
            vm.moves++;
          }
          if (event.key === 'ArrowLeft' && at > 0) {
            vm.selected = ids[at - 1];
            vm.moves++;
          }
        };
      },
    });
})();
