angular.module('desk.berth-card', []).directive('berthCard', function () {
  return {
    restrict: 'E',
    scope: {},
    controllerAs: '$ctrl',
    bindToController: { name: '@', depth: '<?', free: '<', onPick: '&' },
    template: `
      <article class="berth">
        <h3>{{ $ctrl.name }}: {{ $ctrl.depth || 4 }} m</h3>
        <button type="button" ng-disabled="!$ctrl.free" ng-click="$ctrl.pick()">Picked {{ $ctrl.picked }} times</button>
      </article>
    `,
    controller: function () {
      this.picked = 0;

      this.pick = function () {
        this.picked += 1;
        this.onPick({ name: this.name });
      };
    },
  };
});
