(function () {
  'use strict';

  angular.module('desk.fares', []).component('fareBox', {
    bindings: { base: '<', currency: '@?', onFare: '&' },
    controllerAs: 'fare',
    controller: ['$log', function FareController($log) {
      var fare = this;
      fare.kind = 'adult';
      fare.seats = 1;
      fare.kinds = ['adult', 'child', 'crew'];
      fare.rates = { adult: 1, child: 0.5, crew: 0 };

      fare.total = function () {
        return (fare.base || 0) * fare.rates[fare.kind] * fare.seats;
      };

      fare.more = function (count) {
        fare.seats = Math.max(1, fare.seats + count);
        $log.debug('seats', fare.seats);
      };

      fare.take = function () {
        fare.onFare({ total: fare.total(), kind: fare.kind });
      };
    }],
    template: `
      <fieldset>
        <legend>{{ fare.kind }}</legend>
        <label ng-repeat="kind in fare.kinds">
          <input type="radio" name="kind" ng-model="fare.kind" ng-value="kind"> {{ kind }}
        </label>
        <button type="button" ng-click="fare.more(-1)">-</button>
        <span>{{ fare.seats }}</span>
        <button type="button" ng-click="fare.more(1)">+</button>
        <strong ng-bind="fare.total() | number:2"></strong>
        <em ng-if="fare.currency">{{ fare.currency | lowercase }}</em>
        <button type="button" ng-click="fare.take()" ng-disabled="fare.total() === 0">Take</button>
      </fieldset>
    `,
  });
})();
