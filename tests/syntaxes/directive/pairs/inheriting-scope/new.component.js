angular.module('gullmoor.crew', [])

// The crew of the sailing that the page has chosen.
.component('crewStrip', {
  bindings: { chosen: '<', sailing: '<' },
  template: '<p>{{$ctrl.heading}}: <i ng-repeat="name in $ctrl.crew">{{name}}, {{$ctrl.sailing.port}}</i></p>' +
    '<button type="button" ng-click="$ctrl.next()">Next</button>',
  controller: function() {
    var $ctrl = this;

    $ctrl.$postLink = function() {
      $ctrl.at = 0;
      $ctrl.heading = 'Crew of ' + $ctrl.sailing.port;
      $ctrl.crew = $ctrl.sailing.crew.slice(0, 1);

      $ctrl.next = function() {
        $ctrl.at = ($ctrl.at + 1) % $ctrl.sailing.crew.length;
        $ctrl.crew = [$ctrl.sailing.crew[$ctrl.at]];
        $ctrl.chosen($ctrl.crew[0]);
      };
    };
  }
});
