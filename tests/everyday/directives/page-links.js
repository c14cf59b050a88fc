(function () {
  'use strict';

  function PageLinksController($scope) {
    var vm = this;

    vm.page = vm.page || 1;

    vm.pages = function () {
      var count = Math.max(1, Math.ceil((vm.total || 0) / (vm.size || 10)));
      var pages = [];
      for (var page = 1; page <= count; page++) pages.push(page);
      return pages;
    };

    vm.go = function (page) {
      if (page < 1 || page > vm.pages().length || page === vm.page) return;
      vm.page = page;
      vm.onPage({ page: page });
    };

    $scope.$watch(
      function () { return vm.total; },
      function (total, before) {
        if (total !== before) vm.page = Math.min(vm.page, vm.pages().length);
      }
    );
  }

  PageLinksController.$inject = ['$scope'];

  angular.module('desk.pages', []).directive('pageLinks', pageLinks);

  function pageLinks() {
    return {
      restrict: 'E',
      scope: { total: '=', size: '=', page: '=?', onPage: '&' },
      bindToController: true,
      controller: PageLinksController,
      controllerAs: 'vm',
      template:
        '<nav><button ng-click="vm.go(vm.page - 1)" ng-disabled="vm.page === 1">back</button>' +
        '<button ng-repeat="page in vm.pages() track by page" ng-click="vm.go(page)" ng-class="{ on: page === vm.page }">{{ page }}</button>' +
        '<button ng-click="vm.go(vm.page + 1)" ng-disabled="vm.page === vm.pages().length">on</button></nav>'
    };
  }
})();
