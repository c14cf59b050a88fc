angular.module('gullmoor.board', [])
  .filter('knots', function () {
    return function (value, unit) { return value + ' ' + (unit || 'kn'); };
  })
  .directive('departureBoard', function () {
    return {
      restrict: 'E',
      scope: { sailings: '<', unit: '@', pick: '&' },
      template: `
        <form name="form" ng-submit="add(entry)">
          <input ng-model="entry" aria-label="entry" ng-required="true">
          <select ng-model="order" ng-options="o.key as o.label for o in orders track by o.key" aria-label="order"></select>
          <button type="submit" ng-disabled="form.$invalid">Add</button>
        </form>
        <table>
          <tr ng-repeat-start="sailing in sailings | orderBy:order.key track by sailing.id" ng-init="late = sailing.late">
            <td ng-bind="sailing.port"></td>
            <td>{{ sailing.speed | knots:unit }}, {{ late ? $index + 1 : order.label }}</td>
          </tr>
          <tr ng-repeat-end ng-if="sailing.late">
            <td><button type="button" ng-click="$parent.$parent.unfolded = !unfolded; pick({ sailing, $event: $event, order })">{{unfolded}}</button></td>
          </tr>
        </table>
        <p ng-switch="unfolded"><span ng-switch-when="true">{{::unit}} unfolded</span><span ng-switch-default>'unfolded' is {{unfolded || "not unfolded"}}</span></p>
        <div ng-non-bindable>{{unfolded}}</div>`,
      link(scope) {
        scope.orders = [{ key: 'port', label: 'by port' }, { key: 'speed', label: 'by speed' }];
        scope.order = scope.orders[0];
        scope.add = (port) => {
          scope.sailings = [...(scope.sailings || []), { id: port, port, speed: port.length, late: true }];
        };
      },
    };
  });
