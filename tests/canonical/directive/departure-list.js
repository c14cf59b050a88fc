angular.module('desk.departure-list', []).directive('departureList', function () {
  return {
    restrict: 'E',
    scope: {},
    controllerAs: '$ctrl',
    bindToController: { departures: '<' },
    template: `
      <section>
        <button type="button" ng-click="$ctrl.lateOnly = !$ctrl.lateOnly">{{ $ctrl.lateOnly ? 'All' : 'Late only' }}</button>
        <ul ng-if="$ctrl.shown().length > 0">
          <li ng-repeat="one in $ctrl.shown() track by one.id">{{ $index + 1 }}. {{ one.to }} <em ng-if="one.late">late</em></li>
        </ul>
        <p ng-if="$ctrl.shown().length === 0">No departure</p>
      </section>
    `,
    controller: class DepartureListController {
      constructor() {
        this.lateOnly = false;
      }

      shown() {
        const known = this.departures || [];
        return this.lateOnly ? known.filter((one) => one.late) : known;
      }
    },
  };
});
