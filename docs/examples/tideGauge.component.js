/** A gauge of the water at a pier: it fills and falls, warns, and can be marked by a click or the keys. */
angular.module('gullmoor.tide', []).component('tideGauge', {
  bindings: {
    pier: '@',
    level: '=',
    marks: '<?',
    most: '<?',
    onMark: '&',
    onWarn: '&?',
  },
  controller: ['$scope', '$element', '$interval', '$document', 'tideClock', function TideGaugeController(scope, element, $interval, $document, tideClock) {
    const KEYS = { ArrowUp: 1, ArrowDown: -1 };

    const gauge = this;
    let timer = null;

    gauge.history = [];
    gauge.own = [];
    gauge.rising = false;
    gauge.follows = false;
    gauge.asked = null;

    gauge.limit = () => gauge.most || 6;
    gauge.all = () => (gauge.marks || []).concat(gauge.own);

    gauge.share = function (height = gauge.level) {
      const share = (height / gauge.limit()) * 100;
      return Math.round(Math.min(100, Math.max(0, share || 0)));
    };

    gauge.isHigh = function () {
      return gauge.level >= gauge.limit() * 0.9;
    };

    gauge.changed = function (level, before) {
      const change = level - before;
      gauge.rising = change > 0;
      gauge.history.unshift({ change, to: level });
      gauge.history.splice(5);
    };

    gauge.mark = function (event) {
      const box = event.currentTarget.getBoundingClientRect();
      const height = box.height ? gauge.limit() * (1 - (event.clientY - box.top) / box.height) : gauge.level;
      gauge.add(height);
    };

    gauge.key = function (event) {
      const step = KEYS[event.key];
      if (step) {
        event.preventDefault();
        gauge.level = Math.max(0, gauge.level + step * 0.1);
      } else if (event.key === 'Enter') {
        gauge.add(gauge.level);
      }
    };

    gauge.add = function (height) {
      const name = `mark ${gauge.own.length + 1}`;
      gauge.own.push({ name, height });
      gauge.onMark({ name, height });
    };

    gauge.forget = function () {
      gauge.own.length = 0;
    };

    gauge.follow = function () {
      gauge.stop();
      if (!gauge.follows) return;
      timer = $interval(() => {
        gauge.level = tideClock.at(gauge.pier);
        gauge.asked = tideClock.now();
      }, 10000);
    };

    gauge.stop = function () {
      if (timer) $interval.cancel(timer);
      timer = null;
    };

    gauge.$onInit = function () {
      if (angular.isUndefined(gauge.level)) gauge.level = tideClock.at(gauge.pier);
    };

    gauge.$postLink = function () {
      const escape = (event) => {
        if (event.key !== 'Escape' || gauge.own.length === 0) return;
        scope.$apply(() => gauge.forget());
      };
      $document.on('keydown', escape);
      scope.$on('$destroy', () => {
        $document.off('keydown', escape);
        gauge.stop();
      });
      scope.$watch('gauge.level', (level, before) => {
        if (level === before) return;
        gauge.changed(level, before);
      });
      scope.$watch(
        () => gauge.isHigh(),
        (high) => {
          element.toggleClass('warned', high);
          if (high && gauge.onWarn) gauge.onWarn({ level: gauge.level });
        }
      );
    };
  }],
  controllerAs: 'gauge',
  transclude: true,
  template: `
      <figure class="gauge" ng-class="{ high: gauge.isHigh(), rising: gauge.rising }">
        <figcaption>
          {{ gauge.pier || 'the pier' }}: {{ gauge.level | number: 2 }} m
          <small ng-if="gauge.asked">asked at {{ gauge.asked | date: 'HH:mm' }}</small>
        </figcaption>
        <div class="tube" tabindex="0" ng-click="gauge.mark($event)" ng-keydown="gauge.key($event)">
          <span class="water" ng-style="{ height: gauge.share() + '%' }"></span>
          <i ng-repeat="mark in gauge.all() | orderBy: 'height' as shown track by mark.name"
             ng-style="{ bottom: gauge.share(mark.height) + '%' }"
             ng-class="{ reached: mark.height <= gauge.level }">{{ mark.name }}</i>
        </div>
        <ol ng-if="gauge.history.length">
          <li ng-repeat="entry in gauge.history track by $index" ng-switch="entry.change > 0">
            <b ng-switch-when="true">up {{ entry.change | number: 2 }}</b>
            <b ng-switch-default>down {{ -entry.change | number: 2 }}</b>
            {{ entry.to | number: 2 }} m
          </li>
        </ol>
        <p ng-transclude>No word from the harbour</p>
        <label>
          Follow it
          <input type="checkbox" ng-model="gauge.follows" ng-change="gauge.follow()">
        </label>
        <button type="button" ng-disabled="!gauge.own.length" ng-click="gauge.forget()">
          forget {{ gauge.own.length }} marks
        </button>
      </figure>
    `,
});

angular.module('gullmoor.tide').factory('tideClock', function () {
  return {
    now: () => new Date(),
    at: (pier) => 2 + (pier ? pier.length : 0) / 10,
  };
});
