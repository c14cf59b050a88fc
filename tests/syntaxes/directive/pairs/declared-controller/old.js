import angular from 'angular';

SailingCardController.$inject = ['$scope', '$timeout'];

function SailingCardController($scope, $timeout) {
  const card = this;

  card.board = () => {
    $timeout(() => {
      $scope.boarded = true;
    }, 20);
  };

  $scope.label = () => ($scope.boarded ? 'Aboard' : $scope.port || 'Nowhere');
}

export default angular.module('gullmoor.card', []).directive('sailingCard', () => ({
  restrict: 'E',
  scope: { port: '@' },
  controller: SailingCardController,
  controllerAs: 'card',
  template: '<button type="button" ng-click="card.board()">{{label()}}</button>',
}));
