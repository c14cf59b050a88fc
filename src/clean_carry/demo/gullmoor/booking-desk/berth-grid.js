// The berths of a harbour, of which one is picked. What stands above them is the page's own.
angular
  .module('gullmoor.desk')
  .controller('BerthGridController', ['$scope', '$attrs', 'deskConfig', function ($scope, $attrs, deskConfig) {
    var grid = this,
      smallest = angular.isDefined($attrs.smallest) ? $scope.$parent.$eval($attrs.smallest) : deskConfig.smallest;

    grid.pick = function (berth) {
      if (grid.fits(berth)) {
        grid.picked = berth;
        $scope.onPick({ berth: berth });
      }
    };

    grid.fits = function (berth) {
      return berth.length >= smallest && !berth.taken;
    };

    // The first berth that is long enough is picked at once.
    grid.picked = firstOf($scope.berths);

    $scope.$watchCollection('berths', function (berths) {
      $scope.free = (berths || []).filter(grid.fits).length;
      if ($scope.free === 0) {
        grid.picked = null;
      }
    });

    function firstOf(berths) {
      return (berths || []).find(grid.fits) || null;
    }
  }])
  .directive('berthGrid', function () {
    return {
      restrict: 'E',
      transclude: true,
      scope: { berths: '=', onPick: '&' },
      controller: 'BerthGridController',
      controllerAs: 'grid',
      templateUrl: 'booking-desk/berth-grid.html'
    };
  });
