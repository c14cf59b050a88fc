angular.module('gullmoor.helpers', [])

.component('cargoBar', {
  bindings: { load: '<', most: '<' },
  template: '<div title="{{$ctrl.label}}" ng-style="{ width: $ctrl.width }">{{$ctrl.label}}</div>',
  controller: ['$scope', '$element', '$filter', 'cargoUnits', function(scope, elm, $filter, cargoUnits) {
    var $ctrl = this;

    var FULL = 100;

    // Kept in bounds, however much is loaded.
    function share(load, most) {
      return Math.max(0, Math.min(FULL, Math.round(FULL * load / most)));
    }

    $ctrl.$postLink = function() {
      scope.$watchGroup(['$ctrl.load', '$ctrl.most'], function(values) {
        var part = share(values[0], values[1]);
        $ctrl.width = part + '%';
        $ctrl.label = $filter('number')(part, 1) + cargoUnits.percent;
        elm.toggleClass('full', part === FULL);
      });
    };
  }]
})

.constant('cargoUnits', { percent: ' of a hundred' });
