angular.module('desk.notices', []).component('noticeBox', {
  transclude: { foot: '?noticeFoot' },
  bindings: { heading: '@', open: '<?' },
  template: `
    <section class="notice">
      <h4>{{ $ctrl.heading || 'Notice' }}</h4>
      <button type="button" ng-click="$ctrl.toggle()" ng-attr-aria-expanded="{{ $ctrl.shown }}">{{ $ctrl.shown ? 'Hide' : 'Show' }}</button>
      <div class="body" ng-if="$ctrl.shown" ng-transclude></div>
      <footer ng-transclude="foot">Nothing more</footer>
    </section>
  `,
  controller: function NoticeBoxController() {
    var vm = this;
    vm.shown = true;

    vm.$onChanges = function (changes) {
      if (changes.open && vm.open !== undefined) {
        vm.shown = vm.open;
      }
    };

    vm.toggle = function () {
      vm.shown = !vm.shown;
    };
  },
});
