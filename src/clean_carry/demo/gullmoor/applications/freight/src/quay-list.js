angular.module('freight').component('quayList', {
  bindings: { title: '@' },
  template:
    '<h2>{{ $ctrl.title }}: {{ $ctrl.count }} loaded</h2>' +
    '<crate-row ng-repeat="crate in $ctrl.crates" crate="crate" on-load="$ctrl.loaded(id)"></crate-row>',
  controller: function () {
    this.count = 0;
    this.crates = [
      { id: 'c1', what: 'Nets', kilos: 400 },
      { id: 'c2', what: 'Salt', kilos: 1500 },
    ];
    this.loaded = function () {
      this.count += 1;
    };
  },
});
