/**
 * Chooses cabins on a deck plan: a click or the keys, a price that follows, and a word to the form around
 * it on whether the choice is enough for the party.
 */
angular.module('gullmoor.cabins', []).component('cabinPicker', {
  require: { form: '?^form' },
  bindings: {
    rows: '<',
    taken: '<',
    party: '<',
    price: '<?',
    chosen: '=',
    onChosen: '&',
  },
  template:
    '<div class="cabins" ng-class="{ enough: $ctrl.enough() }" ng-keydown="$ctrl.move($event)">' +
    '<h4>{{ $ctrl.title }} <small ng-show="$ctrl.left() > 0">{{ $ctrl.left() }} to go</small></h4>' +
    '<table><tbody>' +
    '<tr ng-repeat="row in $ctrl.plan track by row.number" ng-init="deck = row.number">' +
    '<th>{{ deck }}</th>' +
    '<td ng-repeat="cabin in row.cabins track by cabin.id" ng-class="$ctrl.stateOf(cabin)" ng-click="$ctrl.choose(cabin)">' +
    '<span ng-if="cabin.id !== $ctrl.at">{{ cabin.id }}</span>' +
    '<strong ng-if="cabin.id === $ctrl.at">{{ cabin.id }}</strong>' +
    '</td>' +
    '</tr>' +
    '</tbody></table>' +
    '<p ng-if="$ctrl.chosen.length">{{ $ctrl.chosen.join(", ") }}: {{ $ctrl.total() }}</p>' +
    '<p ng-if="!$ctrl.chosen.length">none yet</p>' +
    '<em ng-if="$ctrl.hint()">{{ $ctrl.hint() }}</em>' +
    '<label>Only free ones <input type="checkbox" ng-model="$ctrl.view.free"></label>' +
    '<button type="button" ng-click="$ctrl.clear()" ng-disabled="!$ctrl.chosen.length">none of them</button>' +
    '<p class="said" ng-bind="$ctrl.said"></p>' +
    '</div>',
  controller: ['$scope', '$attrs', '$timeout', '$filter', '$log', function (scope, attrs, $timeout, $filter, $log) {
    'use strict';

    var $ctrl = this;

    var letters = 'ABCDEF';

    function label(row, index) {
      return row + letters.charAt(index);
    }

    $ctrl.$postLink = function () {
      var quiet = null;
      var currency = $filter('currency');

      $ctrl.title = attrs.heading || 'Cabins';
      $ctrl.view = { free: false };
      $ctrl.at = '';
      $ctrl.said = '';
      $ctrl.chosen = $ctrl.chosen || [];

      function isTaken(id) {
        return ($ctrl.taken || []).indexOf(id) >= 0;
      }

      function draw() {
        $ctrl.plan = [];
        for (var row = 1; row <= $ctrl.rows; row++) {
          var cabins = [];
          for (var index = 0; index < letters.length; index++) {
            var id = label(row, index);
            if (!$ctrl.view.free || !isTaken(id)) cabins.push({ id: id, row: row, index: index });
          }
          $ctrl.plan.push({ number: row, cabins: cabins });
        }
      }

      function say(words) {
        $ctrl.said = words;
        $timeout.cancel(quiet);
        quiet = $timeout(function () {
          $ctrl.said = '';
        }, 3000);
      }

      $ctrl.left = function () {
        return Math.max(0, ($ctrl.party || 0) - $ctrl.chosen.length);
      };

      $ctrl.enough = function () {
        return $ctrl.left() === 0;
      };

      $ctrl.total = function () {
        return currency($ctrl.chosen.length * ($ctrl.price || 0), '€ ');
      };

      // What is said to a party that could be nearer to each other
      $ctrl.hint = function () {
        if ($ctrl.chosen.length < 2) return '';
        var rows = $ctrl.chosen.map(function (id) {
          return parseInt(id, 10);
        });
        var apart = Math.max.apply(null, rows) - Math.min.apply(null, rows);
        return apart > 1 ? apart + ' rows apart' : '';
      };

      $ctrl.stateOf = function (cabin) {
        if (isTaken(cabin.id)) return 'taken';
        return $ctrl.chosen.indexOf(cabin.id) >= 0 ? 'chosen' : 'free';
      };

      $ctrl.choose = function (cabin) {
        if (isTaken(cabin.id)) {
          say(cabin.id + ' is taken');
          return;
        }
        var place = $ctrl.chosen.indexOf(cabin.id);
        if (place >= 0) $ctrl.chosen.splice(place, 1);
        else if ($ctrl.left() > 0) $ctrl.chosen.push(cabin.id);
        else say('that is enough');
        $ctrl.at = cabin.id;
        $ctrl.onChosen({ cabins: $ctrl.chosen });
      };

      $ctrl.clear = function () {
        $ctrl.chosen.length = 0;
        $ctrl.at = '';
        $ctrl.onChosen({ cabins: $ctrl.chosen });
      };

      $ctrl.move = function (event) {
        var index = letters.indexOf($ctrl.at.slice(-1));
        var row = parseInt($ctrl.at, 10) || 1;
        if (event.key === 'ArrowRight') index = Math.min(letters.length - 1, index + 1);
        else if (event.key === 'ArrowLeft') index = Math.max(0, index - 1);
        else if (event.key === 'ArrowDown') row = Math.min($ctrl.rows, row + 1);
        else if (event.key === 'ArrowUp') row = Math.max(1, row - 1);
        else return;
        event.preventDefault();
        $ctrl.at = label(row, Math.max(0, index));
      };

      scope.$watchGroup(['$ctrl.rows', '$ctrl.taken', '$ctrl.view.free'], draw);

      scope.$watchCollection('$ctrl.chosen', function (chosen) {
        if ($ctrl.form) $ctrl.form.$setValidity('cabins', chosen.length >= ($ctrl.party || 0));
      });

      scope.$on('$destroy', function () {
        $timeout.cancel(quiet);
        $log.debug('cabins closed');
      });
    };
  }],
});
