angular.module('gullmoor.board', [])
  .filter('knots', function () {
    return function (value, unit) { return value + ' ' + (unit || 'kn'); };
  })
  .component('departureBoard', {
    bindings: { sailings: '<', unit: '@', pick: '&' },
    template: `
        <form name="$ctrl.form" ng-submit="$ctrl.add($ctrl.entry)">
          <input ng-model="$ctrl.entry" aria-label="entry" ng-required="true">
          <select ng-model="$ctrl.order" ng-options="o.key as o.label for o in $ctrl.orders track by o.key" aria-label="order"></select>
          <button type="submit" ng-disabled="$ctrl.form.$invalid">Add</button>
        </form>
        <table>
          <tr ng-repeat-start="sailing in $ctrl.sailings | orderBy:$ctrl.order.key track by sailing.id" ng-init="late = sailing.late">
            <td ng-bind="sailing.port"></td>
            <td>{{ sailing.speed | knots:$ctrl.unit }}, {{ late ? $index + 1 : $ctrl.order.label }}</td>
          </tr>
          <tr ng-repeat-end ng-if="sailing.late">
            <td><button type="button" ng-click="$ctrl.unfolded = !$ctrl.unfolded; $ctrl.pick({ sailing, $event: $event, order: $ctrl.order })">{{$ctrl.unfolded}}</button></td>
          </tr>
        </table>
        <p ng-switch="$ctrl.unfolded"><span ng-switch-when="true">{{::$ctrl.unit}} unfolded</span><span ng-switch-default>'unfolded' is {{$ctrl.unfolded || "not unfolded"}}</span></p>
        <div ng-non-bindable>{{unfolded}}</div>`,
    controller: function () {
      var $ctrl = this;

      $ctrl.$postLink = function () {
        $ctrl.orders = [{ key: 'port', label: 'by port' }, { key: 'speed', label: 'by speed' }];
        $ctrl.order = $ctrl.orders[0];
        $ctrl.add = (port) => {
          $ctrl.sailings = [...($ctrl.sailings || []), { id: port, port, speed: port.length, late: true }];
        };
      };
    },
  });
