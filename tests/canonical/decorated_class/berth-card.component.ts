import { Component, EventEmitter, Input, Output } from '@angular/core';

@Component({
  selector: 'gf-berth-card',
  standalone: true,
  template: `
    <article class="berth">
      <h3>{{ name }}: {{ depth }} m</h3>
      <button type="button" [disabled]="!free" (click)="choose()">Picked {{ picked }} times</button>
    </article>
  `,
})
export class BerthCard {
  @Input({ required: true }) name!: string;
  @Input() depth = 4;
  @Input() free = true;
  @Output() pick = new EventEmitter<string>();

  picked = 0;

  choose(): void {
    this.picked += 1;
    this.pick.emit(this.name);
  }
}
