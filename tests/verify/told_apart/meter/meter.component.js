angular.module('gullmoor', []);
angular.module('gullmoor').component('tankMeter', { bindings: { most: '=' }, template: '<meter value="{{$ctrl.level}}" max="{{$ctrl.most}}"></meter>', controller: function () {
  var $ctrl = this;

  $ctrl.$postLink = function () { $ctrl.level = 1; $ctrl.fill = function () { $ctrl.level = $ctrl.most; }; };
} });
angular.module('gullmoor').directive('fillsOnPress', function () { return { restrict: 'A', link: function (scope, el) { el.on('click', function () { var s = el.find('tank-meter').isolateScope(); s.$apply(function () { s.fill(); }); }); } }; });
