angular.module('gullmoor', []).directive('cargoBadge', function () {
  return { restrict: 'A', scope: { count: '=cargoBadge' }, template: '<b>{{count}}</b>', link: function (scope, el) { el.addClass('badge'); } };
});
