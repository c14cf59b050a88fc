(function () {
  'use strict';

  angular.module('desk.fare', []).directive('fareBox', fareBox);

  // Shows a fare and lets the clerk change the number of tickets
  function fareBox() {
    return {
      restrict: 'E',
      scope: { price: '=', currency: '@', onTotal: '&' },
      template:
        '<div class="fare"><button ng-click="less()" ng-disabled="amount < 2">-</button>' +
        ' <b>{{ amount }}</b> <button ng-click="more()">+</button>' +
        ' <span ng-class="{ dear: total() > 50 }">{{ total() }} {{ currency }}</span></div>',
      link: link
    };
  }

  function link(scope, element) {
    scope.amount = 1;
    element.addClass('fare-box');
    scope.total = function () {
      return scope.amount * (scope.price || 0);
    };
    scope.more = function () {
      scope.amount++;
    };
    scope.less = function () {
      scope.amount--;
    };
    scope.$watch('total()', function (total, before) {
      if (total !== before) scope.onTotal({ total: total });
    });
  }
})();
