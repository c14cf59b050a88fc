angular.module('desk.wind', [])
  .filter('compass', function () {
    var names = ['N', 'E', 'S', 'W'];
    return function (degrees) {
      return names[Math.round((degrees || 0) / 90) % 4];
    };
  })
  .directive('windArrow', function () {
    return {
      restrict: 'E',
      scope: { degrees: '=', speed: '=', unit: '@' },
      templateNamespace: 'html',
      template: '<span class="wind" ng-style="style()" ng-attr-title="{{ speed }} {{ unit }}">{{ degrees | compass }}<em ng-switch="force()"><i ng-switch-when="0">calm</i><i ng-switch-when="1">fresh</i><i ng-switch-default>storm</i></em></span>',
      compile: function (element, attrs) {
        if (!attrs.unit) attrs.unit = 'knots';
        return function (scope, element) {
          scope.style = function () {
            return { transform: 'rotate(' + (scope.degrees || 0) + 'deg)' };
          };
          scope.force = function () {
            return Math.min(2, Math.floor((scope.speed || 0) / 20));
          };
          scope.$watch('force()', function (force) {
            element.attr('data-force', force);
          });
        };
      }
    };
  });
