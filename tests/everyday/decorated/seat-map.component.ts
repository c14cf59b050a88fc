import { CommonModule } from '@angular/common';
import { ChangeDetectionStrategy, Component, EventEmitter, Input, Output } from '@angular/core';

interface Seat {
  row: number;
  letter: string;
  taken: boolean;
}

@Component({
  selector: 'gf-seat-map',
  standalone: true,
  imports: [CommonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="deck" role="grid" [attr.aria-label]="deck | lowercase">
      <div class="row" role="row" *ngFor="let row of rows; let r = index">
        <ng-container *ngFor="let seat of row; trackBy: bySeat">
          <button
            type="button"
            role="gridcell"
            [disabled]="seat.taken"
            [class.taken]="seat.taken"
            [class.chosen]="isChosen(seat)"
            [attr.aria-pressed]="isChosen(seat)"
            (click)="choose(seat, $event)"
          >{{ r + 1 }}{{ seat.letter }}</button>
        </ng-container>
      </div>
      <p>{{ chosen.length }} chosen<ng-container *ngIf="chosen.length">: {{ names }}</ng-container></p>
    </div>
  `,
  styles: [`.taken { opacity: 0.4; } .chosen { outline: 2px solid; }`],
})
export class SeatMapComponent {
  @Input() deck = 'Upper deck';
  @Input() most = 3;
  @Input() set seats(list: Seat[]) {
    const numbers = [...new Set((list || []).map((seat) => seat.row))];
    this.rows = numbers.map((number) => (list || []).filter((seat) => seat.row === number));
  }
  @Output('seatsChange') changed = new EventEmitter<Seat[]>();

  rows: Seat[][] = [];
  chosen: Seat[] = [];

  get names(): string {
    return this.chosen.map((seat) => `${seat.row}${seat.letter}`).join(', ');
  }

  isChosen(seat: Seat): boolean {
    return this.chosen.includes(seat);
  }

  choose(seat: Seat, event: MouseEvent): void {
    event.preventDefault();
    if (this.isChosen(seat)) {
      this.chosen = this.chosen.filter((one) => one !== seat);
    } else if (this.chosen.length < this.most) {
      this.chosen = [...this.chosen, seat];
    }
    this.changed.emit(this.chosen);
  }

  bySeat(index: number, seat: Seat): string {
    return `${seat.row}${seat.letter}`;
  }
}
