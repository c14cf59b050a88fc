/**
 * Chooses cabins on a deck plan: a click or the keys, a price that follows, and a word to the form around
 * it on whether the choice is enough for the party.
 */
angular.module('gullmoor.cabins', []).directive('cabinPicker', [
  '$timeout',
  '$filter',
  '$log',
  function ($timeout, $filter, $log) {
    'use strict';

    var letters = 'ABCDEF';

    function label(row, index) {
      return row + letters.charAt(index);
    }

    return {
      restrict: 'E',
      require: '?^form',
      scope: {
        rows: '<',
        taken: '<',
        party: '<',
        price: '<?',
        chosen: '=',
        onChosen: '&',
      },
      template:
        '<div class="cabins" ng-class="{ enough: enough() }" ng-keydown="move($event)">' +
        '<h4>{{ title }} <small ng-show="left() > 0">{{ left() }} to go</small></h4>' +
        '<table><tbody>' +
        '<tr ng-repeat="row in plan track by row.number" ng-init="deck = row.number">' +
        '<th>{{ deck }}</th>' +
        '<td ng-repeat="cabin in row.cabins track by cabin.id" ng-class="stateOf(cabin)" ng-click="choose(cabin)">' +
        '<span ng-if="cabin.id !== at">{{ cabin.id }}</span>' +
        '<strong ng-if="cabin.id === at">{{ cabin.id }}</strong>' +
        '</td>' +
        '</tr>' +
        '</tbody></table>' +
        '<p ng-if="chosen.length">{{ chosen.join(", ") }}: {{ total() }}</p>' +
        '<p ng-if="!chosen.length">none yet</p>' +
        '<em ng-if="hint()">{{ hint() }}</em>' +
        '<label>Only free ones <input type="checkbox" ng-model="view.free"></label>' +
        '<button type="button" ng-click="clear()" ng-disabled="!chosen.length">none of them</button>' +
        '<p class="said" ng-bind="said"></p>' +
        '</div>',
      link: function (scope, element, attrs, form) {
        var quiet = null;
        var currency = $filter('currency');

        scope.title = attrs.heading || 'Cabins';
        scope.view = { free: false };
        scope.at = '';
        scope.said = '';
        scope.chosen = scope.chosen || [];

        function isTaken(id) {
          return (scope.taken || []).indexOf(id) >= 0;
        }

        function draw() {
          scope.plan = [];
          for (var row = 1; row <= scope.rows; row++) {
            var cabins = [];
            for (var index = 0; index < letters.length; index++) {
              var id = label(row, index);
              if (!scope.view.free || !isTaken(id)) cabins.push({ id: id, row: row, index: index });
            }
            scope.plan.push({ number: row, cabins: cabins });
          }
        }

        function say(words) {
          scope.said = words;
          $timeout.cancel(quiet);
          quiet = $timeout(function () {
            scope.said = '';
          }, 3000);
        }

        scope.left = function () {
          return Math.max(0, (scope.party || 0) - scope.chosen.length);
        };

        scope.enough = function () {
          return scope.left() === 0;
        };

        scope.total = function () {
          return currency(scope.chosen.length * (scope.price || 0), '€ ');
        };

        // What is said to a party that could be nearer to each other
        scope.hint = function () {
          if (scope.chosen.length < 2) return '';
          var rows = scope.chosen.map(function (id) {
            return parseInt(id, 10);
          });
          var apart = Math.max.apply(null, rows) - Math.min.apply(null, rows);
          return apart > 1 ? apart + ' rows apart' : '';
        };

        scope.stateOf = function (cabin) {
          if (isTaken(cabin.id)) return 'taken';
          return scope.chosen.indexOf(cabin.id) >= 0 ? 'chosen' : 'free';
        };

        scope.choose = function (cabin) {
          if (isTaken(cabin.id)) {
            say(cabin.id + ' is taken');
            return;
          }
          var place = scope.chosen.indexOf(cabin.id);
          if (place >= 0) scope.chosen.splice(place, 1);
          else if (scope.left() > 0) scope.chosen.push(cabin.id);
          else say('that is enough');
          scope.at = cabin.id;
          scope.onChosen({ cabins: scope.chosen });
        };

        scope.clear = function () {
          scope.chosen.length = 0;
          scope.at = '';
          scope.onChosen({ cabins: scope.chosen });
        };

        scope.move = function (event) {
          var index = letters.indexOf(scope.at.slice(-1));
          var row = parseInt(scope.at, 10) || 1;
          if (event.key === 'ArrowRight') index = Math.min(letters.length - 1, index + 1);
          else if (event.key === 'ArrowLeft') index = Math.max(0, index - 1);
          else if (event.key === 'ArrowDown') row = Math.min(scope.rows, row + 1);
          else if (event.key === 'ArrowUp') row = Math.max(1, row - 1);
          else return;
          event.preventDefault();
          scope.at = label(row, Math.max(0, index));
        };

        scope.$watchGroup(['rows', 'taken', 'view.free'], draw);

        scope.$watchCollection('chosen', function (chosen) {
          if (form) form.$setValidity('cabins', chosen.length >= (scope.party || 0));
        });

        scope.$on('$destroy', function () {
          $timeout.cancel(quiet);
          $log.debug('cabins closed');
        });
      },
    };
  },
]);
