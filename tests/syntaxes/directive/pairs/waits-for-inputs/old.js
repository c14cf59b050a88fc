angular.module('gullmoor.cargo', [])

.constant('cargoConfig', { most: 5 })

.controller('CargoListController', ['$scope', 'cargoConfig', function($scope, cargoConfig) {
  var self = this,
    shown = self.shown = $scope.shown = [],
    most = mostOf($scope.limit),
    turned = false;

  self.add = function(name) {
    shown.push(name);
    if (shown.length > most) {
      shown.shift();
    }
  };

  // What is there at the start is listed at once.
  angular.forEach($scope.cargo, function(name) {
    self.add(name);
  });
  $scope.first = shown[0];

  $scope.turn = function() {
    turned = !turned;
    shown.reverse();
    $scope.first = shown[0];
  };

  $scope.$watch('limit', function(limit) {
    most = mostOf(limit);
  });

  function mostOf(limit) {
    return angular.isDefined(limit) ? limit : cargoConfig.most;
  }
}])

.directive('cargoList', function() {
  return {
    restrict: 'E',
    scope: { cargo: '<', limit: '=?' },
    controller: 'CargoListController',
    template: '<h4>{{first}}</h4><i ng-repeat="name in shown">{{name}}</i><button type="button" ng-click="turn()">Turn</button>'
  };
});
