angular.module('desk.freight-form', []).component('freightForm', {
  bindings: { onSend: '&' },
  template: `
    <form ng-submit="$ctrl.send()">
      <p><input type="text" name="what" ng-model="$ctrl.what"></p>
      <p><input type="checkbox" name="fragile" ng-model="$ctrl.fragile"></p>
      <p>{{ $ctrl.what }} {{ $ctrl.fragile ? 'fragile' : 'sturdy' }}</p>
      <button type="submit" ng-disabled="!$ctrl.what">Send</button>
    </form>
  `,
  controller: function FreightFormController() {
    var vm = this;
    vm.what = '';
    vm.fragile = false;

    vm.send = function () {
      if (!vm.what) {
        return;
      }
      vm.onSend({ load: { what: vm.what, fragile: vm.fragile } });
      vm.what = '';
    };
  },
});
