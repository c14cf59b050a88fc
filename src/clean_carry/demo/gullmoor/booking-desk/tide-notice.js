// A notice, written in the desk's few signs; a service makes markup of it.
angular.module('gullmoor.desk').directive('tideNotice', ['$sce', '$timeout', 'noticeMarkup', function ($sce, $timeout, noticeMarkup) {
  return {
    restrict: 'A',
    replace: true,
    scope: { notice: '=', until: '@' },
    template:
      '<aside class="notice" ng-hide="gone">' +
        '<p ng-bind-html="markup"></p>' +
        '<button type="button" ng-click="dismiss()">Read</button>' +
      '</aside>',
    link: function (scope, element) {
      scope.$watch('notice', function (notice) {
        scope.markup = $sce.trustAsHtml(noticeMarkup.of(notice));
        scope.gone = !notice;
      });

      scope.dismiss = function () {
        element.addClass('leaving');
        $timeout(function () {
          scope.gone = true;
          element.removeClass('leaving');
        }, 200);
      };
    }
  };
}]);
