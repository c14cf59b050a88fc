angular.module('gullmoor.moments', [])

.directive('tideClock', ['$interval', function($interval) {
  return {
    restrict: 'E',
    scope: { level: '=' },
    transclude: true,
    template: '<b>{{shown}}</b><i ng-transclude></i><u>{{seen}}</u>',
    compile: function() {
      return {
        pre: function(scope) {
          scope.shown = 'level ' + scope.level;
        },
        post: function(scope, element, attrs, unused, transclude) {
          scope.seen = element.children().length + (transclude.isSlotFilled ? ' filled' : '');
          var ticking = $interval(function() {
            scope.shown = 'level ' + (scope.level += 1);
          }, 1000);

          scope.$on('$destroy', function() {
            $interval.cancel(ticking);
          });
        }
      };
    }
  };
}]);
