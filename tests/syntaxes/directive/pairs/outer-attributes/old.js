angular.module('gullmoor.outer', [])

.controller('BerthListController', ['$scope', '$attrs', function($scope, $attrs) {
  this.single = function() {
    return $scope.$eval($attrs.single) !== false;
  };
}])

.directive('berthList', function() {
  return {
    restrict: 'E',
    transclude: true,
    controller: 'BerthListController',
    controllerAs: '$ctrl',
    template: function(element, attrs) {
      return attrs.plain ? '<i ng-transclude></i>' : '<b ng-transclude></b>';
    }
  };
});
