angular.module('desk.lamp', []).directive('quayLamp', function ($timeout) {
  var lamps = 0;

  function name() {
    lamps += 1;
    return 'lamp-' + lamps;
  }

  return {
    restrict: 'E',
    scope: { lit: '=?', colour: '@', onBlink: '&' },
    template: '<button id="{{ id }}" ng-class="[colour, lit ? \'on\' : \'off\']" ng-click="blink(3)">{{ blinks }} {{ lit }}</button>',
    controller: ['$scope', function ($scope) {
      $scope.blinks = 0;

      $scope.blink = function (times) {
        if (!times) return;
        $scope.lit = !$scope.lit;
        $scope.blinks++;
        $scope.onBlink({ times: times });
        $scope.next = $timeout($scope.blink, 200, true, times - 1);
      };

      $scope.$on('$destroy', function () {
        $timeout.cancel($scope.next);
      });
    }],
    link: function (scope, element) {
      scope.id = name();
      element.attr('data-lamp', scope.id);
    }
  };
});
