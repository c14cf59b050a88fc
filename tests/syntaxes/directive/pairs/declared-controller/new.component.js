import angular from 'angular';

SailingCardController.$inject = ['$timeout'];

function SailingCardController($timeout) {
  const card = this;

  card.board = () => {
    $timeout(() => {
      card.boarded = true;
    }, 20);
  };

  card.label = () => (card.boarded ? 'Aboard' : card.port || 'Nowhere');
}

export default angular.module('gullmoor.card', []).component('sailingCard', {
  bindings: { port: '@' },
  controller: SailingCardController,
  controllerAs: 'card',
  template: '<button type="button" ng-click="card.board()">{{card.label()}}</button>',
});
