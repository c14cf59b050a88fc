angular.module('gullmoor', []).controller('AnnouncerCtl', ['$scope', function ($scope) {
  var vm = this;
  vm.volume = 3;
  vm.log = [];
  $scope.$watch('$ctrl.volume', function (volume) { vm.log.push('v' + volume); });
  vm.louder = function () { vm.volume++; };
}]);
angular.module('gullmoor').component('announcer', { bindings: { title: '@' }, controller: 'AnnouncerCtl', template: '<p>{{$ctrl.title}} {{$ctrl.volume}} {{$ctrl.log.join()}} <button ng-click="$ctrl.louder()">+</button></p>' });
