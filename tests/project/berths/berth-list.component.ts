import { Component, Input } from '@angular/core';

interface Berth { id: number; name: string; cars: number; }

@Component({
  selector: 'app-berth-list',
  standalone: false,
  template: `
    <section>
      <app-pier-name class="title" [(name)]="pier" />
      <ul>
        <app-berth-row
          *ngFor="let berth of open; trackBy: byId"
          [name]="berth.name"
          [carCount]="berth.cars"
          [chosen]="berth.name === last"
          (closed)="shut($event)">
          <i mark>*</i>
          <em *ngIf="berth.cars > 9">full</em>
        </app-berth-row>
      </ul>
      <p *ngIf="last">Closed: {{ last }}</p>
    </section>
  `,
})
export class BerthListComponent {
  @Input() open: Berth[] = [
    { id: 1, name: 'Holm', cars: 3 },
    { id: 2, name: 'Skail', cars: 12 },
  ];

  pier = 'North';
  last = '';

  byId(_: number, berth: Berth): number {
    return berth.id;
  }

  shut(name: string): void {
    this.last = name;
  }
}
