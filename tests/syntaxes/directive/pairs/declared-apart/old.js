(function () {
  'use strict';

  angular
    .module('gullmoor.info', [])
    .directive('sailingInfo', sailingInfo);

  sailingInfo.$inject = ['$timeout', 'tides'];

  /* @ngInject */
  function sailingInfo($timeout, tides) {
    // Usage: <sailing-info sailing="vm.sailing"></sailing-info>
    var directive = {
      bindToController: {
        sailing: '=',
        picked: '&'
      },
      controller: SailingInfoController,
      controllerAs: 'vm',
      link: link,
      restrict: 'EA',
      scope: {},
      templateUrl: 'sailing-info.html'
    };
    return directive;

    function link(scope, element, attrs, vm) {
      element.addClass(attrs.look || 'plain');
      vm.tide = tides.at(vm.sailing.port);
      $timeout(later, 100);

      function later() {
        element.addClass('later');
      }
    }
  }

  SailingInfoController.$inject = ['$scope'];

  /* @ngInject */
  function SailingInfoController($scope) {
    var vm = this;
    vm.pick = pick;

    activate();

    ////////////////

    function activate() {
      $scope.$watch('vm.sailing.port', function (port) { vm.port = port; });
    }

    function pick() {
      vm.picked({ sailing: vm.sailing });
    }
  }
})();
