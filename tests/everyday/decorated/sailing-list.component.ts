import { CommonModule } from '@angular/common';
import { Component, EventEmitter, Input, Output } from '@angular/core';

export interface Sailing {
  id: number;
  pier: string;
  time: string;
  seats: number;
  cancelled?: boolean;
}

@Component({
  selector: 'gf-sailing-list',
  standalone: true,
  imports: [CommonModule],
  template: `
    <section class="sailings" [class.sailings--compact]="compact">
      <h2>{{ heading | uppercase }}</h2>
      <p *ngIf="shown.length === 0; else list" class="none">No sailing from {{ pier || 'any pier' }}</p>
      <ng-template #list>
        <ol>
          <li
            *ngFor="let sailing of shown; let i = index; let last = last; trackBy: byId"
            [ngClass]="{ picked: sailing.id === pickedId, cancelled: sailing.cancelled }"
            [class.last]="last"
          >
            <button type="button" [disabled]="sailing.cancelled" (click)="pick(sailing)">
              {{ i + 1 }}. {{ sailing.time }} {{ sailing.pier }}
            </button>
            <small *ngIf="!sailing.cancelled">{{ sailing.seats }} seats</small>
          </li>
        </ol>
      </ng-template>
      <p class="sum">{{ shown.length }} of {{ sailings.length }}</p>
    </section>
  `,
  styles: [`
    .sailings { padding: 8px; }
    .picked { font-weight: bold; }
  `],
})
export class SailingListComponent {
  @Input() sailings: Sailing[] = [];
  @Input() heading = 'Sailings';
  @Input() pier = '';
  @Input() compact = false;
  @Output() picked = new EventEmitter<Sailing>();

  pickedId: number | null = null;

  get shown(): Sailing[] {
    return this.sailings.filter((one) => !this.pier || one.pier === this.pier);
  }

  pick(sailing: Sailing): void {
    this.pickedId = sailing.id;
    this.picked.emit(sailing);
  }

  byId(index: number, sailing: Sailing): number {
    return sailing.id;
  }
}
