angular.module('desk.seats', []).component('seatCounter', {
  bindings: { seats: '<', most: '<?', onChange: '&' },
  template:
    '<div class="counter">' +
    '<button type="button" ng-click="$ctrl.step(-1)" ng-disabled="$ctrl.seats <= 0">less</button>' +
    '<output>{{ $ctrl.seats }}</output>' +
    '<button type="button" ng-click="$ctrl.step(1)" ng-disabled="$ctrl.seats >= $ctrl.limit()">more</button>' +
    '<em ng-if="$ctrl.seats === $ctrl.limit()">full</em>' +
    '<span ng-switch="$ctrl.kind()">' +
    '<i ng-switch-when="none">nobody</i><i ng-switch-when="one">one seat</i><i ng-switch-default>several</i>' +
    '</span>' +
    '</div>',
  controller: class SeatCounterController {
    limit() {
      return this.most || 6;
    }

    kind() {
      if (!this.seats) return 'none';
      return this.seats === 1 ? 'one' : 'several';
    }

    step(by) {
      const next = Math.max(0, Math.min(this.limit(), this.seats + by));
      if (next !== this.seats) {
        this.onChange({ seats: next });
      }
    }
  },
});
