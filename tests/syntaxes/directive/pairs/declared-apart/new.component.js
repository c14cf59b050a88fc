(function () {
  'use strict';

  angular
    .module('gullmoor.info', [])
    /* @ngInject */
    // Usage: <sailing-info sailing="vm.sailing"></sailing-info>
    .component('sailingInfo', {
      bindings: {
        sailing: '=',
        picked: '&'
      },
      controller: SailingInfoController,
      controllerAs: 'vm',
      templateUrl: 'sailing-info.html'
    });

  SailingInfoController.$inject = ['$scope', '$element', '$attrs', '$timeout', 'tides'];

  /* @ngInject */
  function SailingInfoController($scope, element, attrs, $timeout, tides) {
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

    vm.$postLink = function () {
      element.addClass(attrs.look || 'plain');
      vm.tide = tides.at(vm.sailing.port);
      $timeout(later, 100);

      function later() {
        element.addClass('later');
      }
    };
  }
})();
