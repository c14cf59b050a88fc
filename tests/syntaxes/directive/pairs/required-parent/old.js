angular.module('gullmoor.harbour', [])

.controller('HarbourController', ['$scope', function($scope) {
  this.berths = [];

  this.addBerth = function(berth) {
    var harbour = this;
    this.berths.push(berth);
    berth.$on('$destroy', function() {
      harbour.removeBerth(berth);
    });
  };

  this.removeBerth = function(berth) {
    this.berths.splice(this.berths.indexOf(berth), 1);
  };

  this.closeOthers = function(open) {
    angular.forEach(this.berths, function(berth) {
      if (berth !== open) {
        berth.open = false;
      }
    });
  };
}])

.directive('harbour', function() {
  return {
    restrict: 'E',
    transclude: true,
    scope: {},
    controller: 'HarbourController',
    template: '<div ng-transclude></div>'
  };
})

.directive('berth', function() {
  return {
    restrict: 'E',
    require: '^harbour', // a berth is always part of one
    transclude: true,
    scope: { name: '@', open: '=?' },
    template: '<button type="button" ng-click="open = !open">{{name}}</button><div ng-show="open" ng-transclude></div>',
    link: function(scope, element, attrs, harbour) {
      harbour.addBerth(scope);

      scope.$watch('open', function(open) {
        element.toggleClass('open', !!open);
        if (open) {
          harbour.closeOthers(scope);
        }
      });
    }
  };
});
