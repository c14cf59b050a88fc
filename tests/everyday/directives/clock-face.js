(function () {
  angular.module('desk.clock', []).directive('clockFace', clockFace);

  clockFace.$inject = ['$interval', 'dateFilter'];

  function clockFace($interval, dateFilter) {
    return {
      restrict: 'E',
      scope: { format: '@', zone: '=?' },
      template: '<time ng-click="count = count + 1" title="{{ count }} looks">{{ text }}</time>',
      link: link
    };

    function link(scope, element, attrs) {
      var timer;
      scope.count = 0;

      function update() {
        scope.text = dateFilter(new Date(0).getTime() + scope.minutes * 60000, scope.format || 'HH:mm', scope.zone || 'UTC');
      }

      scope.minutes = Number(attrs.start) || 0;
      scope.$watchGroup(['format', 'minutes'], update);

      timer = $interval(function () {
        scope.minutes++;
      }, 60000);

      element.on('$destroy', function () {
        $interval.cancel(timer);
      });
    }
  }
})();
