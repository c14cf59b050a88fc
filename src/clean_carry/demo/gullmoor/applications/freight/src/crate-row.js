angular.module('freight').directive('crateRow', function () {
  return {
    restrict: 'E',
    scope: { crate: '<', onLoad: '&' },
    template:
      '<p>{{ vm.crate.what }} <weight-tag kilos="vm.crate.kilos"></weight-tag> ' +
      '<button ng-click="vm.load()">{{ vm.loaded ? "loaded" : "load" }}</button></p>',
    controllerAs: 'vm',
    bindToController: true,
    controller: function () {
      this.loaded = false;
      this.load = function () {
        this.loaded = true;
        this.onLoad({ id: this.crate.id });
      };
    },
  };
});
