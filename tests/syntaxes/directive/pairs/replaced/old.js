angular.module('gullmoor.strip', [])

.directive('weatherStrip', ['$timeout', function($timeout) {
  return {
    restrict: 'EA',
    replace: true,
    scope: { wind: '@', alarm: '=' },
    template: '<section class="strip" ng-class="{ alarm: alarm }"><b>{{wind}}</b><button type="button" ng-click="calm()">Calm</button></section>',
    link: function(scope, element, attrs) {
      element.addClass(attrs.tone || 'plain');

      scope.calm = function() {
        $timeout(function() {
          scope.alarm = false;
          element.children()[0].title = 'calm';
        }, 50);
      };
    }
  };
}]);
