(function (app) {
  app.directive('dateRange', ['$filter', function ($filter) {
    var format = $filter('date');

    return {
      restrict: 'E',
      scope: { from: '=', to: '=', onChange: '&' },
      template:
        '<fieldset><input type="number" ng-model="from" ng-change="check()"> – <input type="number" ng-model="to" ng-change="check()">' +
        '<em ng-if="error">{{ error }}</em><p>{{ days() }} {{ words() }} until {{ shown() }}</p></fieldset>',
      controller: ['$scope', '$attrs', function ($scope, $attrs) {
        $scope.days = function () {
          return Math.max(0, ($scope.to || 0) - ($scope.from || 0));
        };

        $scope.words = function () {
          return $scope.days() === 1 ? 'day' : 'days';
        };

        $scope.shown = function () {
          return format(($scope.to || 0) * 86400000, $attrs.format || 'yyyy-MM-dd', 'UTC');
        };

        $scope.check = function () {
          $scope.error = $scope.from > $scope.to ? 'ends before it starts' : '';
          if (!$scope.error) $scope.onChange({ from: $scope.from, to: $scope.to });
        };

        $scope.$watchCollection('[from, to]', function (range) {
          $scope.range = range.join('-');
        });
      }]
    };
  }]);
})(angular.module('desk.range', []));
