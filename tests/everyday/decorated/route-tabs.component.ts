import { CommonModule } from '@angular/common';
import { Component, EventEmitter, Input, OnInit, Output } from '@angular/core';

interface Route {
  name: string;
  stops: string[];
}

@Component({
  selector: 'gf-route-tabs',
  standalone: true,
  imports: [CommonModule],
  host: { class: 'route-tabs' },
  template: `
    <nav role="tablist">
      <button
        *ngFor="let route of routes; index as at"
        type="button"
        role="tab"
        [attr.aria-selected]="at === current"
        [class.current]="at === current"
        (click)="show(at)"
        (keydown.arrowright)="step(1)"
        (keydown.arrowleft)="step(-1)"
      >{{ route.name }}</button>
    </nav>
    <ng-container *ngIf="routes[current] as route">
      <h3>{{ route.name }}</h3>
      <ng-container *ngTemplateOutlet="stopList; context: { $implicit: route.stops, title: 'Stops' }"></ng-container>
    </ng-container>
    <ng-template #stopList let-stops let-title="title">
      <h4>{{ title }} ({{ stops?.length }})</h4>
      <ol>
        <li *ngFor="let stop of stops">{{ stop }}</li>
      </ol>
    </ng-template>
  `,
})
export class RouteTabsComponent implements OnInit {
  @Input() routes: Route[] = [];
  @Input() first = 0;
  @Output() shown = new EventEmitter<string>();

  current = 0;

  ngOnInit(): void {
    this.current = this.first;
  }

  show(at: number): void {
    this.current = at;
    this.shown.emit(this.routes[at]?.name);
  }

  step(by: number): void {
    const count = this.routes.length;
    if (count > 0) {
      this.show((this.current + by + count) % count);
    }
  }
}
