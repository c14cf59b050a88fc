angular.module('gullmoor.berths', [])
  .component('berthGrid', {
    bindings: { berths: '<', chosen: '=?' },
    controllerAs: 'grid',
    controller: function () {
      this.choose = function (berth) {
        this.chosen = berth === this.chosen ? null : berth;
      };
    },
    templateUrl: 'gullmoor/alias-kept/berth-grid.html'
  });
