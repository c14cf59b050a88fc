angular.module('gullmoor.tickets', [])

.component('ticketPrice', {
  bindings: { boundPrice: '@price', currency: '@?' },
  controller: ['$scope', function($scope) {
    var $ctrl = this;

    // The controller's own price is a number.
    this.price = 0;
    this.total = function(count) {
      return this.price * count;
    };
    $ctrl.shownTotal = 'none';

    var own = this;
    $scope.$watch('$ctrl.boundPrice', function(price) {
      own.price = Number(price) || 0;
      $ctrl.shownTotal = own.total(2) + ($ctrl.currency || '');
    });
  }],
  template: '<b title="{{$ctrl.boundPrice}}">{{$ctrl.shownTotal}}</b>'
});
