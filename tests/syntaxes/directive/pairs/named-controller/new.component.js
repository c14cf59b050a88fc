angular.module('gullmoor.notice', [])

.controller('LowNoticeController', ['$element', '$attrs', function($element, $attrs) {
  var $ctrl = this;

  $ctrl.closeable = !!$attrs.close;
  $element.addClass('notice');

  this.shut = function() {
    $ctrl.shownShut = true;
    $ctrl.close();
  };

  var self = this;
  $ctrl.leave = function($event) {
    $event.preventDefault();
    self.shut();
  };
}])

.component('lowNotice', {
  controller: 'LowNoticeController',
  transclude: true,
  template: '<div ng-hide="$ctrl.shownShut"><span ng-transclude></span>' +
    '<button type="button" ng-show="$ctrl.closeable" ng-click="$ctrl.leave($event)">Close</button></div>',
  bindings: { close: '&' }
});
