angular.module('desk.quay-badge', []).component('quayBadge', {
  bindings: { level: '<', wide: '<' },
  template: `
    <span class="badge" ng-class="{ wide: $ctrl.wide, on: $ctrl.on }" ng-style="{ opacity: $ctrl.wide ? 1 : 0.5 }">
      <button type="button" ng-click="$ctrl.on = !$ctrl.on">{{ $ctrl.level | number }}</button>
    </span>
  `,
  controller: function () {
    this.on = false;
  },
});
