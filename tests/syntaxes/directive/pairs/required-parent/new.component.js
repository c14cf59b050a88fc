angular.module('gullmoor.harbour', [])

.controller('HarbourController', function() {
  this.berths = [];

  this.addBerth = function(berth) {
    var harbour = this;
    this.berths.push(berth);
    berth.scope.$on('$destroy', function() {
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
})

.component('harbour', {
  transclude: true,
  controller: 'HarbourController',
  template: '<div ng-transclude></div>'
})

.component('berth', {
  require: { harbour: '^harbour' }, // a berth is always part of one
  transclude: true,
  bindings: { name: '@', open: '=?' },
  template: '<button type="button" ng-click="$ctrl.open = !$ctrl.open">{{$ctrl.name}}</button><div ng-show="$ctrl.open" ng-transclude></div>',
  controller: ['$scope', '$element', function(scope, element) {
    var $ctrl = this;
    $ctrl.scope = scope;

    $ctrl.$postLink = function() {
      $ctrl.harbour.addBerth($ctrl);

      scope.$watch('$ctrl.open', function(open) {
        element.toggleClass('open', !!open);
        if (open) {
          $ctrl.harbour.closeOthers($ctrl);
        }
      });
    };
  }]
});
