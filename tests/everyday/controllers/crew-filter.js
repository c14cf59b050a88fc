angular.module('desk.crew', []).component('crewFilter', {
  bindings: { crew: '<', filterBy: '=' },
  template: `
    <div class="crew">
      <input type="search" ng-model="$ctrl.filterBy" ng-keyup="$ctrl.typed($event)" placeholder="Name">
      <select ng-model="$ctrl.duty">
        <option value="">every duty</option>
        <option value="mate">mate</option>
        <option value="cook">cook</option>
      </select>
      <ol>
        <li ng-repeat="one in $ctrl.shown() track by one.id">
          <a ng-href="#/crew/{{ one.id }}">{{ one.name }}</a>
          <span ng-hide="one.aboard">ashore</span>
        </li>
      </ol>
      <p ng-if="$ctrl.shown().length === 0">Nobody</p>
    </div>
  `,
  controller: class CrewFilterController {
    constructor() {
      this.duty = '';
    }

    shown() {
      const asked = (this.filterBy || '').toLowerCase();
      return (this.crew || []).filter(
        (one) => one.name.toLowerCase().includes(asked) && (!this.duty || one.duty === this.duty)
      );
    }

    typed(event) {
      if (event.key === 'Escape') {
        this.filterBy = '';
      }
    }
  },
});
