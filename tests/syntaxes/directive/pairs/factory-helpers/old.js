angular.module('gullmoor.helpers', [])

.directive('cargoBar', ['$filter', 'cargoUnits', function($filter, cargoUnits) {
  var FULL = 100;

  return {
    restrict: 'E',
    scope: { load: '<', most: '<' },
    template: '<div title="{{label}}" ng-style="{ width: width }">{{label}}</div>',
    link: link
  };

  // Kept in bounds, however much is loaded.
  function share(load, most) {
    return Math.max(0, Math.min(FULL, Math.round(FULL * load / most)));
  }

  function link(scope, elm) {
    scope.$watchGroup(['load', 'most'], function(values) {
      var part = share(values[0], values[1]);
      scope.width = part + '%';
      scope.label = $filter('number')(part, 1) + cargoUnits.percent;
      elm.toggleClass('full', part === FULL);
    });
  }
}])

.constant('cargoUnits', { percent: ' of a hundred' });
