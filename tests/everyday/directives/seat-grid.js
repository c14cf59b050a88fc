(function () {
  'use strict';

  angular
    .module('desk.seats', [])
    .directive('seatGrid', seatGrid);

  seatGrid.$inject = ['$parse'];

  function seatGrid($parse) {
    return {
      restrict: 'E',
      scope: true,
      template:
        '<table><tr ng-repeat="row in grid.rows"><td ng-repeat="seat in row">' +
        '<button ng-click="choose(seat)" ng-class="{ on: seat === grid.chosen }" ng-disabled="seat.taken">{{ seat.id }}</button>' +
        '</td></tr></table><p>{{ grid.chosen.id || "no seat" }} {{ grid.count }}</p>',
      link: function (scope, element, attrs) {
        var tell = $parse(attrs.onChoose);
        scope.grid = { rows: make(Number(attrs.rows) || 2), chosen: null, count: 0 };

        scope.choose = function (seat) {
          scope.grid.chosen = seat === scope.grid.chosen ? null : seat;
          scope.grid.count++;
          tell(scope, { seat: seat });
        };

        scope.$watch('grid.count', function (count) {
          element.attr('data-count', count);
        });
      }
    };

    function make(rows) {
      var grid = [];
      for (var row = 1; row <= rows; row++) {
        grid.push(['A', 'B'].map(function (letter) {
          return { id: row + letter, taken: row === 2 && letter === 'A' };
        }));
      }
      return grid;
    }
  }
})();
