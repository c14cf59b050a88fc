// Seats are counted up and down; the booking keeps the number.
angular.module('gullmoor.desk').directive('seatCounter', function () {
  return {
    restrict: 'E',
    scope: {
      seats: '=',
      capacity: '<',
      vessel: '@',
      onFull: '&' // told once the boat is full
    },
    templateUrl: 'booking-desk/seat-counter.html',
    link: function (scope, element, attrs) {
      var step = parseInt(attrs.step, 10) || 1;

      scope.left = function () {
        return Math.max(0, (scope.capacity || 0) - (scope.seats || 0));
      };

      scope.change = function (by) {
        var seats = (scope.seats || 0) + by * step;
        scope.seats = Math.min(scope.capacity, Math.max(0, seats));
      };

      scope.$watch('seats >= capacity', function (full) {
        element.toggleClass('full', full);
        if (full) {
          scope.onFull({ vessel: scope.vessel });
        }
      });
    }
  };
});
