import { Component, EventEmitter, Input, Output } from '@angular/core';

@Component({
  selector: 'app-berth-row',
  standalone: false,
  template: `
    <li [class.chosen]="chosen">
      <ng-content select="[mark]"></ng-content>
      <strong>{{ name }}</strong>
      <span *ngIf="cars > 0">{{ cars }} cars</span>
      <button type="button" (click)="closed.emit(name)">Close</button>
      <ng-content></ng-content>
    </li>
  `,
})
export class BerthRowComponent {
  @Input() name = '';
  @Input('carCount') cars = 0;
  @Input() chosen = false;
  @Output() closed = new EventEmitter<string>();
}
