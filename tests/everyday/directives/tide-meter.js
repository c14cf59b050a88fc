angular.module('desk.tide', []).directive('tideMeter', function ($interval) {
  return {
    restrict: 'E',
    scope: { max: '=', start: '=?', label: '@' },
    template: '<div><meter value="{{ level }}" max="{{ max }}"></meter> <span>{{ label || \'Tide\' }} {{ level | number:1 }}</span> <button ng-click="toggle()">{{ timer ? \'hold\' : \'go\' }}</button></div>',
    link: function (scope, element, attrs) {
      scope.level = scope.start || 0;

      function step() {
        scope.level = (scope.level + 0.5) % (scope.max + 0.5);
      }

      scope.toggle = function () {
        if (scope.timer) {
          $interval.cancel(scope.timer);
          scope.timer = null;
        } else {
          scope.timer = $interval(step, 1000);
        }
      };

      scope.toggle();

      scope.$watch('level >= max', function (full) {
        element.toggleClass('full', !!full);
      });

      attrs.$observe('label', function (label) {
        scope.said = label;
      });

      scope.$on('$destroy', function () {
        if (scope.timer) $interval.cancel(scope.timer);
      });
    }
  };
});
