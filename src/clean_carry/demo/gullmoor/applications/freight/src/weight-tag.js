angular.module('freight').directive('weightTag', function () {
  return {
    restrict: 'E',
    scope: { kilos: '<' },
    template: '<b>{{ vm.kilos / 1000 }} t</b>',
    controllerAs: 'vm',
    bindToController: true,
    controller: function () {},
  };
});
