angular.module('gullmoor.pages', [])

.controller('PagingController', ['$scope', function($scope) {
  this.go = function(page) {
    if (page > 0) {
      $scope.page = page;
    }
  };

  $scope.isFirst = function() {
    return $scope.page === 1;
  };
}])

.directive('sailingPager', function() {
  return {
    restrict: 'E',
    scope: { page: '=' },
    controller: 'PagingController',
    template: '<button type="button" ng-disabled="isFirst()" ng-click="move(-1)">Back</button><b>{{page}}</b><button type="button" ng-click="move(1)">On</button>',
    link: function(scope, element, attrs, paging) {
      scope.move = function(by) {
        paging.go(scope.page + by);
      };
      element.attr('role', attrs.role || 'navigation');
    }
  };
})

.directive('firstPage', function() {
  return {
    restrict: 'E',
    scope: { page: '=' },
    controller: 'PagingController',
    template: '<i ng-if="isFirst()">the first page</i>'
  };
});
