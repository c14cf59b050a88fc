angular.module('gullmoor.crew', [])

// The crew of the sailing that the page has chosen.
.directive('crewStrip', function() {
  return {
    restrict: 'A',
    scope: true,
    template: '<p>{{heading}}: <i ng-repeat="name in crew">{{name}}, {{sailing.port}}</i></p>' +
      '<button type="button" ng-click="next()">Next</button>',
    link: function(scope) {
      scope.at = 0;
      scope.heading = 'Crew of ' + scope.sailing.port;
      scope.crew = scope.sailing.crew.slice(0, 1);

      scope.next = function() {
        scope.at = (scope.at + 1) % scope.sailing.crew.length;
        scope.crew = [scope.sailing.crew[scope.at]];
        scope.chosen(scope.crew[0]);
      };
    }
  };
});
