angular.module('desk.badge', []).directive('hotBadge', function () {
  return {
    restrict: 'A',
    scope: { count: '=hotBadge', most: '@' },
    template: '<b>{{ shown() }}</b><i ng-if="count > limit()">!</i>',
    link: function (scope, element) {
      element.addClass('badge');

      scope.limit = function () {
        return Number(scope.most) || 3;
      };

      scope.shown = function () {
        return scope.count > 99 ? '99+' : scope.count || 0;
      };

      scope.$watch('count', function (count, before) {
        element.toggleClass('hot', count > scope.limit());
        if (count !== before) element.attr('title', before + ' before');
      });

      element.on('mouseenter', function () {
        scope.$apply(function () {
          scope.seen = true;
        });
      });

      scope.$on('$destroy', function () {
        element.off('mouseenter');
      });
    }
  };
});
