import { CommonModule } from '@angular/common';
import { Component, EventEmitter, Input, OnDestroy, OnInit, Output } from '@angular/core';

@Component({
  selector: 'gf-departure-clock',
  standalone: true,
  imports: [CommonModule],
  template: `
    <p class="clock" [ngStyle]="{ color: left < 3 ? 'red' : 'black' }">
      <ng-container *ngIf="left > 0; else gone">
        {{ label }}: <b>{{ left }}</b> {{ left === 1 ? 'minute' : 'minutes' }}
      </ng-container>
      <ng-template #gone><b class="gone">departed</b></ng-template>
      <button type="button" (click)="toggle()">{{ running ? 'Stop' : 'Go on' }}</button>
    </p>
  `,
})
export class DepartureClockComponent implements OnInit, OnDestroy {
  @Input('minutes') start = 5;
  @Input({ required: true }) label!: string;
  @Output('departed') gone = new EventEmitter<void>();

  left = 0;
  running = false;
  private timer: ReturnType<typeof setInterval> | undefined;

  ngOnInit(): void {
    this.left = this.start;
    this.run();
  }

  ngOnDestroy(): void {
    this.stop();
  }

  toggle(): void {
    if (this.running) {
      this.stop();
    } else {
      this.run();
    }
  }

  private run(): void {
    this.running = true;
    this.timer = setInterval(() => this.tick(), 60000);
  }

  private stop(): void {
    this.running = false;
    clearInterval(this.timer);
  }

  private tick(): void {
    this.left -= 1;
    if (this.left <= 0) {
      this.stop();
      this.gone.emit();
    }
  }
}
