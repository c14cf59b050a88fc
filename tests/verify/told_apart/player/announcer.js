angular.module('gullmoor', []).controller('AnnouncerCtl', ['$scope', function ($scope) {
  var vm = this;
  vm.volume = 3;
  vm.log = [];
  $scope.$watch('vm.volume', function (volume) { vm.log.push('v' + volume); });
  vm.louder = function () { vm.volume++; };
}]);
angular.module('gullmoor').directive('announcer', function () {
  return { restrict: 'E', scope: {}, bindToController: { title: '@' }, controller: 'AnnouncerCtl', controllerAs: 'vm', template: '<p>{{vm.title}} {{vm.volume}} {{vm.log.join()}} <button ng-click="vm.louder()">+</button></p>' };
});
