angular.module('gullmoor.notice', [])

.controller('LowNoticeController', ['$scope', '$element', '$attrs', function($scope, $element, $attrs) {
  $scope.closeable = !!$attrs.close;
  $element.addClass('notice');

  this.shut = function() {
    $scope.shut = true;
    $scope.close();
  };

  var self = this;
  $scope.leave = function($event) {
    $event.preventDefault();
    self.shut();
  };
}])

.directive('lowNotice', function() {
  return {
    controller: 'LowNoticeController',
    restrict: 'EA',
    replace: false,
    transclude: true,
    template: '<div ng-hide="shut"><span ng-transclude></span>' +
      '<button type="button" ng-show="closeable" ng-click="leave($event)">Close</button></div>',
    scope: { close: '&' }
  };
});
