angular.module('desk.quay-badge', []).directive('quayBadge', function () {
  return {
    restrict: 'E',
    scope: {},
    controllerAs: '$ctrl',
    bindToController: { level: '<', wide: '<' },
    template: `
      <span class="badge" ng-class="{ wide: $ctrl.wide, on: $ctrl.on }" ng-style="{ opacity: $ctrl.wide ? 1 : 0.5 }">
        <button type="button" ng-click="$ctrl.on = !$ctrl.on">{{ $ctrl.level | number }}</button>
      </span>
    `,
    controller: function () {
      this.on = false;
    },
  };
});
