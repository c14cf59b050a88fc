angular.module('gullmoor.tickets', [])

.directive('ticketPrice', function() {
  return {
    restrict: 'E',
    scope: { price: '@', currency: '@?' },
    controller: ['$scope', function($scope) {
      // The controller's own price is a number.
      this.price = 0;
      this.total = function(count) {
        return this.price * count;
      };
      $scope.total = 'none';

      var own = this;
      $scope.$watch('price', function(price) {
        own.price = Number(price) || 0;
        $scope.total = own.total(2) + ($scope.currency || '');
      });
    }],
    template: '<b title="{{price}}">{{total}}</b>'
  };
});
