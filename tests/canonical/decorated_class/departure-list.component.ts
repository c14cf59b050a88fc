import { CommonModule } from '@angular/common';
import { Component, Input } from '@angular/core';

interface Departure {
  id: number;
  to: string;
  late: boolean;
}

@Component({
  selector: 'gf-departure-list',
  standalone: true,
  imports: [CommonModule],
  template: `
    <section>
      <button type="button" (click)="toggle()">{{ lateOnly ? 'All' : 'Late only' }}</button>
      <ul *ngIf="shown.length > 0; else none">
        <li *ngFor="let one of shown; let i = index; trackBy: byId">
          {{ i + 1 }}. {{ one.to }} <em *ngIf="one.late">late</em>
        </li>
      </ul>
      <ng-template #none><p>No departure</p></ng-template>
    </section>
  `,
})
export class DepartureList {
  @Input({ required: true }) departures!: Departure[];

  lateOnly = false;

  get shown(): Departure[] {
    return this.lateOnly ? this.departures.filter((one) => one.late) : this.departures;
  }

  toggle(): void {
    this.lateOnly = !this.lateOnly;
  }

  byId(index: number, one: Departure): number {
    return one.id;
  }
}
