angular.module('gullmoor.pages', [])

.controller('PagingController', function() {
  var $ctrl = this;

  this.go = function(page) {
    if (page > 0) {
      $ctrl.page = page;
    }
  };

  $ctrl.isFirst = function() {
    return $ctrl.page === 1;
  };
})

.component('sailingPager', {
  bindings: { page: '=' },
  controller: ['$controller', '$element', '$attrs', function($controller, element, attrs) {
    var $ctrl = $controller('PagingController');

    $ctrl.$postLink = function() {
      $ctrl.move = function(by) {
        $ctrl.go($ctrl.page + by);
      };
      element.attr('role', attrs.role || 'navigation');
    };

    return $ctrl;
  }],
  template: '<button type="button" ng-disabled="$ctrl.isFirst()" ng-click="$ctrl.move(-1)">Back</button><b>{{$ctrl.page}}</b><button type="button" ng-click="$ctrl.move(1)">On</button>'
})

.component('firstPage', {
  bindings: { page: '=' },
  controller: 'PagingController',
  template: '<i ng-if="$ctrl.isFirst()">the first page</i>'
});
