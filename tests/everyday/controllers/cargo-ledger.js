(function () {
  'use strict';

  angular.module('desk.cargo', []).component('cargoLedger', {
    bindings: { loads: '<', limit: '<?', onRemove: '&', onOver: '&' },
    template: `
      <table class="cargo">
        <tr ng-repeat="load in $ctrl.rows" ng-class="{ heavy: load.weight > 100, first: $first, last: $last }">
          <td>{{ load.name }}</td>
          <td><input type="number" ng-model="load.weight" ng-change="$ctrl.count()"></td>
          <td><button type="button" ng-click="$ctrl.remove(load)">remove</button></td>
        </tr>
      </table>
      <p>{{ $ctrl.sum }} kg<b ng-if="$ctrl.over"> too much</b></p>
    `,
    controller: function CargoLedgerController() {
      const self = this;
      self.rows = [];
      self.sum = 0;
      self.over = false;

      self.$onChanges = function (changes) {
        if (changes.loads) {
          self.rows = (self.loads || []).map((load) => ({ name: load.name, weight: load.weight }));
          self.count();
        }
      };

      self.count = function () {
        self.sum = self.rows.reduce((sum, load) => sum + (load.weight || 0), 0);
        const over = self.sum > (self.limit || 500);
        if (over && !self.over) {
          self.onOver({ sum: self.sum });
        }
        self.over = over;
      };

      self.remove = function (load) {
        self.rows.splice(self.rows.indexOf(load), 1);
        self.count();
        self.onRemove({ name: load.name });
      };
    },
  });
})();
