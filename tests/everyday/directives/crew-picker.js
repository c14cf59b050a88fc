(function (angular) {
  'use strict';

  var app = angular.module('desk.crew', []);

  app.directive('crewPicker', function () {
    var ddo = {};
    ddo.restrict = 'E';
    ddo.require = 'ngModel';
    ddo.scope = { crew: '=' };
    ddo.template =
      '<ul class="crew"><li ng-repeat="sailor in crew track by sailor.id" ng-class="{ on: isOn(sailor) }">' +
      '<label><input type="checkbox" ng-checked="isOn(sailor)" ng-click="toggle(sailor)"> {{ sailor.name }}</label></li></ul>';
    ddo.link = function (scope, element, attrs, ngModel) {
      scope.picked = [];

      scope.isOn = function (sailor) {
        return scope.picked.indexOf(sailor.id) >= 0;
      };

      scope.toggle = function (sailor) {
        var at = scope.picked.indexOf(sailor.id);
        if (at >= 0) {
          scope.picked.splice(at, 1);
        } else {
          scope.picked.push(sailor.id);
        }
        ngModel.$setViewValue(scope.picked.slice());
      };

      ngModel.$render = function () {
        scope.picked = (ngModel.$viewValue || []).slice();
      };

      ngModel.$isEmpty = function (value) {
        return !value || value.length === 0;
      };
    };
    return ddo;
  });
})(angular);
