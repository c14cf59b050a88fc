(function () {
  'use strict';

  angular.module('desk.search', []).component('sailingSearch', {
    template: `
      <form class="search" ng-submit="$ctrl.search()">
        <label>From <input type="text" name="from" ng-model="$ctrl.query.from"></label>
        <label>To <input type="text" name="to" ng-model="$ctrl.query.to" ng-change="$ctrl.edited()"></label>
        <label><input type="checkbox" name="cars" ng-model="$ctrl.query.cars"> with a car</label>
        <button type="submit" ng-disabled="!$ctrl.query.to">Search</button>
        <button type="button" ng-click="$ctrl.clear()">Clear</button>
      </form>
      <p ng-show="$ctrl.edits > 0">{{ $ctrl.edits }} changes</p>
    `,
    bindings: { start: '@', onSearch: '&' },
    controller: SailingSearchController,
  });

  function SailingSearchController() {
    var vm = this;

    vm.$onInit = function () {
      vm.edits = 0;
      vm.clear();
    };

    vm.clear = clear;
    vm.edited = edited;
    vm.search = search;

    function clear() {
      vm.query = { from: vm.start || '', to: '', cars: false };
    }

    function edited() {
      vm.edits += 1;
    }

    function search() {
      if (!vm.query.to) {
        return;
      }
      vm.onSearch({ query: { from: vm.query.from, to: vm.query.to, cars: vm.query.cars } });
    }
  }
})();
