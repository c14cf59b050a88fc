angular.module('desk.load', [])
  .directive('loadMeter', function () {
    return {
      restrict: 'E',
      scope: { max: '=', unit: '@' },
      template: '<p><meter value="{{ load }}" max="{{ max }}"></meter> {{ load }} {{ unit }} <button ng-click="fill()">fill</button></p>',
      link: function (scope) {
        scope.load = 1;
        scope.fill = function () {
          scope.load = scope.max;
        };
        scope.empty = function () {
          scope.load = 0;
        };
      }
    };
  })
  .directive('emptyOnPress', function () {
    return {
      restrict: 'A',
      link: function (scope, element) {
        element.on('click', function (event) {
          if (event.target.tagName === 'BUTTON') return;
          var inner = element.find('load-meter').isolateScope();
          inner.$apply(function () {
            inner.empty();
          });
        });
      }
    };
  });
