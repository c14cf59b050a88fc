angular.module('desk.notices', [])
  .constant('desk.notices.base', '/desk/')
  .service('noticeStore', function () {
    var notices = [];
    this.all = function () { return notices; };
    this.add = function (text) { notices.push({ id: notices.length + 1, text: text }); };
  })
  .directive('noticePanel', ['noticeStore', '$log', function (noticeStore, $log) {
    return {
      restrict: 'EA',
      replace: false,
      scope: { heading: '@', most: '=' },
      template: function () {
        return '<section><h4>{{ heading }}</h4><p ng-repeat="notice in notices() | limitTo:most">{{ notice.text }}</p>' +
          '<form name="noticeForm" ng-submit="add()"><input name="text" ng-model="draft.text" required ng-maxlength="20">' +
          '<em ng-show="noticeForm.text.$invalid && noticeForm.$submitted">a short text, please</em>' +
          '<button>post</button></form></section>';
      },
      controller: ['$scope', function ($scope) {
        $scope.draft = { text: '' };
        $scope.notices = noticeStore.all;
        $scope.add = function () {
          if (!$scope.draft.text) {
            $log.debug('nothing to post');
            return;
          }
          noticeStore.add($scope.draft.text);
          $scope.draft = { text: '' };
          $scope.$emit('notice-posted', noticeStore.all().length);
        };
      }]
    };
  }]);
