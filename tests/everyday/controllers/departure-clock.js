(function () {
  'use strict';

  class DepartureClockController {
    constructor($interval, $timeout) {
      this.$interval = $interval;
      this.$timeout = $timeout;
      this.seconds = 0;
      this.flash = false;
    }

    $onInit() {
      this.seconds = this.start || 10;
      this.timer = this.$interval(() => this.tick(), 1000);
    }

    $onDestroy() {
      this.$interval.cancel(this.timer);
    }

    tick() {
      this.seconds -= 1;
      if (this.seconds === 0) {
        this.$interval.cancel(this.timer);
        this.flash = true;
        this.$timeout(() => { this.flash = false; }, 500);
        this.onGone({ ship: this.ship });
      }
    }

    get label() {
      return this.seconds > 0 ? `in ${this.seconds} s` : 'gone';
    }
  }

  DepartureClockController.$inject = ['$interval', '$timeout'];

  angular.module('desk.clock', []).component('departureClock', {
    bindings: { ship: '@', start: '<?', onGone: '&' },
    controller: DepartureClockController,
    template: `
      <p class="clock" ng-class="{ flash: $ctrl.flash, gone: $ctrl.seconds <= 0 }">
        <b>{{ $ctrl.ship }}</b> <time>{{ $ctrl.label }}</time>
      </p>
    `,
  });
})();
