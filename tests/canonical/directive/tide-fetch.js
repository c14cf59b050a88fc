angular.module('desk.tide-fetch', []).directive('tideFetch', function () {
  return {
    restrict: 'E',
    scope: {},
    controllerAs: '$ctrl',
    bindToController: { pier: '@' },
    template: `
      <p ng-if="$ctrl.failed" role="alert">No answer from {{ $ctrl.pier }}</p>
      <p ng-if="!$ctrl.failed">{{ $ctrl.level === null ? 'Measuring …' : $ctrl.pier + ': ' + $ctrl.level }}</p>
    `,
    controller: function TideFetchController($http) {
      var vm = this;
      var asked = 0;
      vm.level = null;
      vm.failed = false;

      vm.$onChanges = function (changes) {
        if (changes.pier) {
          ask();
        }
      };

      vm.$onDestroy = function () {
        asked += 1;
      };

      function ask() {
        asked += 1;
        var mine = asked;
        $http.get('/tides/' + vm.pier).then(
          function (reply) {
            if (mine === asked) {
              vm.level = reply.data.level;
              vm.failed = false;
            }
          },
          function () {
            if (mine === asked) {
              vm.failed = true;
            }
          }
        );
      }
    },
  };
});
