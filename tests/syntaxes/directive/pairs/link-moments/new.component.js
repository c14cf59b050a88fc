angular.module('gullmoor.moments', [])

.component('tideClock', {
  bindings: { level: '=' },
  transclude: true,
  template: '<b>{{$ctrl.shown}}</b><i ng-transclude></i><u>{{$ctrl.seen}}</u>',
  controller: ['$scope', '$element', '$transclude', '$interval', function(scope, element, transclude, $interval) {
    var $ctrl = this;

    $ctrl.$onInit = function() {
      $ctrl.shown = 'level ' + $ctrl.level;
    };

    $ctrl.$postLink = function() {
      $ctrl.seen = element.children().length + (transclude.isSlotFilled ? ' filled' : '');
      var ticking = $interval(function() {
        $ctrl.shown = 'level ' + ($ctrl.level += 1);
      }, 1000);

      scope.$on('$destroy', function() {
        $interval.cancel(ticking);
      });
    };
  }]
});
