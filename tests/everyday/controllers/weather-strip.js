(function () {
  'use strict';

  WeatherStripController.$inject = ['$http'];

  function WeatherStripController($http) {
    const vm = this;
    vm.reading = null;
    vm.fault = '';
    vm.loading = false;

    vm.$onInit = () => vm.load();

    vm.$onChanges = (changes) => {
      if (changes.place && !changes.place.isFirstChange()) {
        vm.load();
      }
    };

    vm.load = () => {
      vm.loading = true;
      return $http.get('/weather/' + (vm.place || 'all')).then(
        (reply) => {
          vm.reading = reply.data;
          vm.fault = '';
          vm.loading = false;
        },
        () => {
          vm.fault = 'no weather';
          vm.loading = false;
        }
      );
    };
  }

  angular.module('desk.weather', []).component('weatherStrip', {
    bindings: { place: '@' },
    controller: WeatherStripController,
    template: `
      <aside ng-class="{ loading: $ctrl.loading }">
        <h4>{{ $ctrl.place }}</h4>
        <p ng-if="$ctrl.fault" role="alert">{{ $ctrl.fault }}</p>
        <p ng-if="!$ctrl.fault && $ctrl.reading">{{ $ctrl.reading.wind }} at {{ $ctrl.reading.at }}</p>
        <button type="button" ng-click="$ctrl.load()">reload</button>
      </aside>
    `,
  });
})();
