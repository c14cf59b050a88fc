angular.module('desk.rating', []).directive('ratingStars', function () {
  return {
    restrict: 'EA',
    require: ['ratingStars', 'ngModel'],
    scope: { max: '=', readonly: '=?', onHover: '&' },
    controller: function ($scope) {
      var self = this;

      this.range = function () {
        var stars = [];
        for (var star = 1; star <= ($scope.max || 5); star++) stars.push(star);
        return stars;
      };

      $scope.stars = self.range();
      $scope.value = 0;

      $scope.enter = function (star) {
        if ($scope.readonly) return;
        $scope.over = star;
        $scope.onHover({ value: star });
      };

      $scope.leave = function () {
        $scope.over = 0;
      };
    },
    template:
      '<span ng-mouseleave="leave()"><button type="button" ng-repeat="star in stars" ng-mouseenter="enter(star)" ng-click="rate(star)" ' +
      'ng-class="{ lit: star <= (over || value) }" aria-label="{{ star }}">★</button> {{ value }}/{{ stars.length }}</span>',
    link: function (scope, element, attrs, controllers) {
      var own = controllers[0];
      var ngModel = controllers[1];

      scope.$watch('max', function () {
        scope.stars = own.range();
      });

      scope.rate = function (star) {
        if (scope.readonly) return;
        ngModel.$setViewValue(ngModel.$viewValue === star ? 0 : star);
        ngModel.$render();
      };

      ngModel.$render = function () {
        scope.value = ngModel.$viewValue || 0;
      };
    }
  };
});
