angular.module('desk.confirm', []).directive('confirmButton', ConfirmButton);

ConfirmButton.$inject = ['$timeout', '$document'];

function ConfirmButton($timeout, $document) {
  return {
    restrict: 'E',
    transclude: true,
    scope: { onConfirm: '&', wait: '@', question: '@' },
    template:
      '<span><button ng-if="!asking" ng-click="ask()"><span ng-transclude></span></button>' +
      '<span ng-if="asking">{{ question || "Sure?" }} <button ng-click="yes()">yes</button> <button ng-click="no()">no</button></span>' +
      '<small>{{ done }}</small></span>',
    link: function (scope, element) {
      var timer;
      scope.done = 0;
      scope.asking = false;

      scope.ask = function () {
        scope.asking = true;
        timer = $timeout(scope.no, Number(scope.wait) || 2000);
      };

      scope.no = function () {
        $timeout.cancel(timer);
        scope.asking = false;
      };

      scope.yes = function () {
        scope.no();
        scope.done += 1;
        scope.onConfirm({ times: scope.done });
      };

      function outside(event) {
        if (!element[0].contains(event.target) && scope.asking) scope.$apply(scope.no);
      }

      $document.on('click', outside);
      scope.$on('$destroy', function () {
        $document.off('click', outside);
        $timeout.cancel(timer);
      });
    }
  };
}
