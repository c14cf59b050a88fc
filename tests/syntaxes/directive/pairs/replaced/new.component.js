angular.module('gullmoor.strip', [])

.component('weatherStrip', {
  bindings: { wind: '@', alarm: '=' },
  template: '<section class="strip" ng-class="{ alarm: $ctrl.alarm }"><b>{{$ctrl.wind}}</b><button type="button" ng-click="$ctrl.calm()">Calm</button></section>',
  controller: ['$element', '$attrs', '$timeout', function($element, attrs, $timeout) {
    var $ctrl = this;

    $ctrl.$postLink = function() {
      var element = $element.children();

      element.addClass(attrs.tone || 'plain');

      $ctrl.calm = function() {
        $timeout(function() {
          $ctrl.alarm = false;
          element.children()[0].title = 'calm';
        }, 50);
      };
    };
  }]
});
