angular.module('desk.notice-panel', []).component('noticePanel', {
  transclude: { header: '?noticeHeader' },
  bindings: { title: '@' },
  template: `
    <section>
      <header ng-transclude="header"><h2>{{ $ctrl.title || 'Notice' }}</h2></header>
      <button type="button" ng-click="$ctrl.open = !$ctrl.open">{{ $ctrl.open ? 'Hide' : 'Show' }}</button>
      <div class="body" ng-if="$ctrl.open" ng-transclude></div>
    </section>
  `,
  controller: function () {
    this.open = true;
  },
});
