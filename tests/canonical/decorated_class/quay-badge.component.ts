import { Component, Input } from '@angular/core';
import { CommonModule } from '@angular/common';

@Component({
  selector: 'gf-quay-badge',
  standalone: true,
  imports: [CommonModule],
  template: `
    <span class="badge" [class.wide]="wide" [ngClass]="{ on: on }" [style.opacity]="level / 10">
      <button type="button" (click)="on = !on">{{ level }}</button>
    </span>
  `,
  styles: [`
    .badge { color: navy; }
    .badge.on { color: teal; }
  `],
})
export class QuayBadge {
  @Input() level = 1;
  @Input() wide = false;

  on = false;
}
