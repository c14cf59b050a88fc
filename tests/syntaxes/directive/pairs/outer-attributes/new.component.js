angular.module('gullmoor.outer', [])

.controller('BerthListController', ['$scope', '$attrs', function($scope, $attrs) {
  this.single = function() {
    return $scope.$parent.$eval($attrs.single) !== false;
  };
}])

.component('berthList', {
  transclude: true,
  controller: 'BerthListController',
  template: ['$element', '$attrs', function(element, attrs) {
    return attrs.plain ? '<i ng-transclude></i>' : '<b ng-transclude></b>';
  }]
});
