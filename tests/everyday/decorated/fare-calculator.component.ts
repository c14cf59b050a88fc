import { CommonModule } from '@angular/common';
import { Component, EventEmitter, Input, OnInit, Output } from '@angular/core';
import { FormsModule } from '@angular/forms';

const RATES: Record<string, number> = { adult: 12.5, child: 6, bicycle: 4 };

@Component({
  selector: 'gf-fare-calculator',
  standalone: true,
  imports: [CommonModule, FormsModule],
  templateUrl: './fare-calculator.component.html',
  styleUrls: ['./fare-calculator.component.css'],
})
export class FareCalculatorComponent implements OnInit {
  @Input() kind = 'adult';
  @Input() island = 'Gullmoor';
  @Output() bought = new EventEmitter<{ kind: string; count: number; total: number }>();

  count = 1;
  discount = false;
  note = '';
  kinds = Object.keys(RATES);

  ngOnInit(): void {
    if (this.kind === 'bicycle') {
      this.note = 'Bicycles travel on the car deck.';
    }
  }

  get total(): number {
    const full = (RATES[this.kind] ?? 0) * this.count;
    return this.discount ? full * 0.8 : full;
  }

  more(step: number): void {
    this.count = Math.max(1, this.count + step);
  }

  buy(): void {
    this.bought.emit({ kind: this.kind, count: this.count, total: this.total });
    this.note = `${this.count} bought`;
  }
}
