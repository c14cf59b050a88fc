angular.module('desk.ship', []).directive('shipCard', function ($rootScope) {
  return {
    restrict: 'E',
    replace: true,
    transclude: { title: 'cardTitle', rest: '?cardRest' },
    scope: { ship: '<', open: '=?', onToggle: '&' },
    template:
      '<article class="ship" ng-class="{ open: open }"><h4 ng-click="toggle()" ng-transclude="title">A ship</h4>' +
      '<div ng-if="open"><p>{{ ship.name }} carries {{ ship.cars }} {{ words(ship.cars) }}</p><div ng-transclude="rest">no more to say</div></div></article>',
    link: function ($scope, $element) {
      $scope.words = function (count) {
        return count === 1 ? 'car' : 'cars';
      };

      $scope.toggle = function () {
        $scope.open = !$scope.open;
        $scope.onToggle({ open: $scope.open });
      };

      var off = $rootScope.$on('close-all', function () {
        $scope.open = false;
      });

      $scope.$watch('open', function (open) {
        $element.attr('aria-expanded', String(!!open));
      });

      $scope.$on('$destroy', off);
    }
  };
});
