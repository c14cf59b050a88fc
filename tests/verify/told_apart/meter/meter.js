angular.module('gullmoor', []);
angular.module('gullmoor').directive('tankMeter', function () { return { restrict: 'E', scope: { most: '=' }, template: '<meter value="{{level}}" max="{{most}}"></meter>', link: function (scope) { scope.level = 1; scope.fill = function () { scope.level = scope.most; }; } }; });
angular.module('gullmoor').directive('fillsOnPress', function () { return { restrict: 'A', link: function (scope, el) { el.on('click', function () { var s = el.find('tank-meter').isolateScope(); s.$apply(function () { s.fill(); }); }); } }; });
