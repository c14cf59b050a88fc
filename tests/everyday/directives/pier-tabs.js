angular.module('desk.tabs', [])
  .directive('pierTabs', function () {
    return {
      restrict: 'E',
      transclude: true,
      scope: { selected: '=?' },
      controller: ['$scope', function PierTabsController($scope) {
        var tabs = $scope.tabs = [];

        this.add = function (tab) {
          if (tabs.length === 0) $scope.select(tab);
          tabs.push(tab);
        };

        this.remove = function (tab) {
          tabs.splice(tabs.indexOf(tab), 1);
        };

        $scope.select = function (tab) {
          angular.forEach(tabs, function (one) {
            one.active = false;
          });
          tab.active = true;
          $scope.selected = tab.heading;
        };
      }],
      template: '<div><ul><li ng-repeat="tab in tabs" ng-class="{ on: tab.active }"><a href="" ng-click="select(tab)">{{ tab.heading }}</a></li></ul><div ng-transclude></div></div>'
    };
  })
  .directive('pierTab', function () {
    return {
      restrict: 'E',
      require: '^pierTabs',
      transclude: true,
      scope: { heading: '@' },
      template: '<section ng-show="active"><h5>{{ heading }}</h5><div ng-transclude></div></section>',
      link: function (scope, element, attrs, pierTabs) {
        scope.active = false;
        pierTabs.add(scope);
        scope.$on('$destroy', function () {
          pierTabs.remove(scope);
        });
      }
    };
  });
