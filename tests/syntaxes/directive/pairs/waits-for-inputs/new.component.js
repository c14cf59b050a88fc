angular.module('gullmoor.cargo', [])

.constant('cargoConfig', { most: 5 })

.controller('CargoListController', ['$scope', 'cargoConfig', function($scope, cargoConfig) {
  var self = this,
    shown = self.shown = [],
    most,
    turned = false;

  self.add = function(name) {
    shown.push(name);
    if (shown.length > most) {
      shown.shift();
    }
  };


  self.turn = function() {
    turned = !turned;
    shown.reverse();
    self.first = shown[0];
  };

  function mostOf(limit) {
    return angular.isDefined(limit) ? limit : cargoConfig.most;
  }

  self.$onInit = function() {
    most = mostOf(self.limit);

    // What is there at the start is listed at once.
    angular.forEach(self.cargo, function(name) {
      self.add(name);
    });
    self.first = shown[0];

    $scope.$watch('$ctrl.limit', function(limit) {
      most = mostOf(limit);
    });
  };
}])

.component('cargoList', {
  bindings: { cargo: '<', limit: '=?' },
  controller: 'CargoListController',
  template: '<h4>{{$ctrl.first}}</h4><i ng-repeat="name in $ctrl.shown">{{name}}</i><button type="button" ng-click="$ctrl.turn()">Turn</button>'
});
