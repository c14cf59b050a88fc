angular.module('gullmoor.seats', [])

// One row of the booking desk: seats are counted up and down.
.component('seatCounter', {
  bindings: {
    seats: '=',
    capacity: '<',
    vessel: '@',
    onFull: '&',
    step: '=?stepBy' // one if it is not given
  },
  template:
    '<p title="{{$ctrl.vessel}} of {{$ctrl.capacity}}">{{$ctrl.vessel | uppercase}}: {{$ctrl.seats}}</p>' +
    '<button type="button" ng-click="$ctrl.change(1)" ng-disabled="$ctrl.seats >= $ctrl.capacity">More</button>' +
    '<button type="button" ng-click="$ctrl.change(-1)">Fewer</button>',
  controller: ['$scope', function(scope) {
    var $ctrl = this;

    $ctrl.$postLink = function() {
      $ctrl.change = function(by) {
        $ctrl.seats = ($ctrl.seats || 0) + by * ($ctrl.step || 1);
      };

      scope.$watch('$ctrl.seats >= $ctrl.capacity', function(full) {
        if (full) {
          $ctrl.onFull({ vessel: $ctrl.vessel, seats: $ctrl.seats });
        }
      });
    };
  }]
});
