angular.module('gullmoor.berths', [])
  .component('berthGrid', {
    bindings: { berths: '<', chosen: '=?' },
    controller: function () {
      this.choose = function (berth) {
        this.chosen = berth === this.chosen ? null : berth;
      };
    },
    templateUrl: 'gullmoor/alias-renamed/berth-grid.component.html'
  });
