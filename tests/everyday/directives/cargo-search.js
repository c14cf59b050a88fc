angular.module('desk.cargo', []).directive('cargoSearch', ['$http', '$timeout', function ($http, $timeout) {
  return {
    restrict: 'E',
    scope: { url: '@', onResult: '&', wait: '<' },
    controllerAs: 'search',
    bindToController: true,
    controller: function () {
      var search = this;
      var timer;

      search.query = '';
      search.rows = [];
      search.asked = 0;

      search.changed = function () {
        $timeout.cancel(timer);
        timer = $timeout(load, search.wait || 300);
      };

      search.clear = function () {
        search.query = '';
        search.rows = [];
      };

      function load() {
        search.loading = true;
        search.asked++;
        $http.get(search.url, { params: { q: search.query } }).then(
          function (reply) {
            search.rows = reply.data;
            search.loading = false;
            search.onResult({ rows: search.rows });
          },
          function () {
            search.failed = true;
            search.loading = false;
          }
        );
      }
    },
    template: [
      '<div ng-class="{ loading: search.loading }">',
      '<input ng-model="search.query" ng-change="search.changed()">',
      '<button ng-click="search.clear()" ng-if="search.query">clear</button>',
      '<p ng-show="search.failed">no reply</p>',
      '<ol><li ng-repeat="row in search.rows">{{ row.name }}</li></ol>',
      '<small>{{ search.asked }}</small>',
      '</div>'
    ].join('')
  };
}]);
