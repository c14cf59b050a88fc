(function () {
  'use strict';

  angular.module('desk.messages', []).directive('messageBox', messageBox);

  function messageBox($compile, $interpolate) {
    return {
      restrict: 'E',
      scope: { messages: '=', pattern: '@', onRead: '&' },
      template: '<div><p ng-repeat="message in messages track by $index" ng-click="read($index)">{{ line(message) }}</p><footer></footer></div>',
      link: function (scope, element) {
        scope.unread = 0;

        scope.line = function (message) {
          return $interpolate(scope.pattern || '[[ text ]]'.replace('[[', '{{').replace(']]', '}}'))(message);
        };

        scope.read = function (index) {
          scope.messages.splice(index, 1);
          scope.onRead({ left: scope.messages.length });
        };

        scope.$watchCollection('messages', function (messages) {
          scope.unread = (messages || []).length;
        });

        element.find('footer').append($compile('<b>{{ unread }} unread</b>')(scope));
      }
    };
  }

  messageBox.$inject = ['$compile', '$interpolate'];
})();
