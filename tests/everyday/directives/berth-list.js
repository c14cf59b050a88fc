(function () {
  'use strict';

  angular.module('desk.berths', []).controller('BerthListController', BerthListController).directive('berthList', berthList);

  BerthListController.$inject = ['$scope', '$timeout'];

  function BerthListController($scope, $timeout) {
    var vm = this;
    vm.filter = '';
    vm.log = [];
    vm.pick = pick;
    vm.free = free;

    $scope.$watch('vm.filter', function (now, before) {
      if (now !== before) vm.log.push(now);
    });

    function pick(berth) {
      vm.picked = vm.picked === berth ? null : berth;
      vm.onPick({ berth: vm.picked });
    }

    function free(berth) {
      berth.busy = true;
      $timeout(function () {
        berth.busy = false;
        berth.ship = '';
      }, 500);
    }
  }

  function berthList() {
    var directive = {
      restrict: 'E',
      scope: {},
      bindToController: { berths: '=', onPick: '&' },
      controller: 'BerthListController',
      controllerAs: 'vm'
    };
    directive.template =
      '<div><input ng-model="vm.filter"><ul>' +
      '<li ng-repeat="berth in vm.berths | filter:vm.filter as shown track by berth.id" ng-click="vm.pick(berth)">' +
      '{{ berth.name }} {{ berth.ship }} <button ng-click="vm.free(berth); $event.stopPropagation()" ng-disabled="berth.busy">free</button></li></ul>' +
      '<p>{{ shown.length }} shown, {{ vm.log.join() }} {{ vm.picked.name }}</p></div>';
    return directive;
  }
})();
