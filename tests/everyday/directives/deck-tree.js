(function () {
  'use strict';

  angular.module('desk.tree', []).directive('deckTree', deckTree).directive('deckNode', deckNode);

  function deckTree() {
    return {
      restrict: 'E',
      scope: { decks: '=', onOpen: '&' },
      template: '<ul><deck-node ng-repeat="deck in decks" deck="deck" on-open="opened(deck)"></deck-node></ul><p>{{ last }} {{ opens }}</p>',
      controller: function ($scope) {
        $scope.opens = 0;
        $scope.opened = function (deck) {
          $scope.last = deck.name;
          $scope.opens++;
          $scope.onOpen({ deck: deck });
        };
      }
    };
  }

  function deckNode() {
    return {
      restrict: 'E',
      scope: { deck: '=', onOpen: '&' },
      template: '<li><a href="" ng-click="toggle()">{{ deck.name }}</a> <b ng-if="open">{{ deck.rooms.length }} rooms <i ng-repeat="room in deck.rooms">{{ room }} </i></b></li>',
      link: function (scope, element) {
        scope.open = false;
        scope.toggle = function () {
          scope.open = !scope.open;
          element.toggleClass('open', scope.open);
          if (scope.open) scope.onOpen();
        };
      }
    };
  }
})();
