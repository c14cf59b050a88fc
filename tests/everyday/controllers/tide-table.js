angular
  .module('desk.tides', [])
  .component('tideTable', {
    bindings: { tides: '<', unit: '@?' },
    template: `
      <table>
        <caption>{{ $ctrl.pier() }} tides</caption>
        <tr ng-repeat="tide in $ctrl.tides track by $index" ng-class="tide.high ? 'high' : 'low'">
          <th>{{ tide.time }}</th>
          <td ng-style="{ opacity: tide.height > 2 ? 1 : 0.5 }">{{ tide.height | number:1 }} {{ $ctrl.unit || 'm' }}</td>
          <td><button type="button" ng-click="$ctrl.mark($index)">{{ $ctrl.marked === $index ? 'marked' : 'mark' }}</button></td>
        </tr>
      </table>
      <dl>
        <div ng-repeat="(name, value) in $ctrl.extremes()"><dt>{{ name }}</dt><dd>{{ value | number:1 }}</dd></div>
      </dl>
    `,
    controller: function () {
      this.marked = -1;

      this.pier = function () {
        return (this.tides || []).length + ' known';
      };

      this.mark = function (at) {
        this.marked = this.marked === at ? -1 : at;
      };

      this.extremes = function () {
        var heights = (this.tides || []).map(function (tide) { return tide.height; });
        if (!heights.length) {
          return {};
        }
        return { highest: Math.max.apply(null, heights), lowest: Math.min.apply(null, heights) };
      };
    },
  });
