import { CommonModule } from '@angular/common';
import { Component, Input, OnChanges, SimpleChanges } from '@angular/core';

@Component({
  selector: 'gf-tide-strip',
  standalone: true,
  imports: [CommonModule],
  template: `
    <div class="tide" [attr.title]="place" [class]="tone">
      <span
        class="bar"
        *ngFor="let level of levels | slice: 0:most; let odd = odd; let first = first"
        [style.height.px]="level * 10"
        [class.odd]="odd"
        [class.first]="first"
        >{{ level | number: '1.1-1' }}</span
      >
      <em *ngIf="trend as word">{{ word }}</em>
      <small [hidden]="changes === 0">changed {{ changes }}×</small>
    </div>
  `,
  styles: ['.tide { display: flex; }', '.bar { background: teal; }'],
})
export class TideStripComponent implements OnChanges {
  @Input() levels: number[] = [];
  @Input() place = '';
  @Input() most = 6;

  trend = '';
  changes = 0;

  ngOnChanges(changes: SimpleChanges): void {
    if (changes['levels']) {
      const [first, last] = [this.levels[0], this.levels[this.levels.length - 1]];
      this.trend = first === undefined || first === last ? '' : first < last ? 'rising' : 'falling';
      if (!changes['levels'].firstChange) {
        this.changes += 1;
      }
    }
  }

  get tone(): string {
    return this.trend ? `tide--${this.trend}` : '';
  }
}
