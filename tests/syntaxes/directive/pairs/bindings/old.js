angular.module('gullmoor.seats', [])

// One row of the booking desk: seats are counted up and down.
.directive('seatCounter', function() {
  return {
    restrict: 'E',
    scope: {
      seats: '=',
      capacity: '<',
      vessel: '@',
      onFull: '&',
      step: '=?stepBy' // one if it is not given
    },
    template:
      '<p title="{{vessel}} of {{capacity}}">{{vessel | uppercase}}: {{seats}}</p>' +
      '<button type="button" ng-click="change(1)" ng-disabled="seats >= capacity">More</button>' +
      '<button type="button" ng-click="change(-1)">Fewer</button>',
    link: function(scope) {
      scope.change = function(by) {
        scope.seats = (scope.seats || 0) + by * (scope.step || 1);
      };

      scope.$watch('seats >= capacity', function(full) {
        if (full) {
          scope.onFull({ vessel: scope.vessel, seats: scope.seats });
        }
      });
    }
  };
});
