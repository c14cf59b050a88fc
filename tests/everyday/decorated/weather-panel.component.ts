import { Component, DestroyRef, OnInit, computed, effect, inject, input, signal } from '@angular/core';
import { JsonPipe, UpperCasePipe } from '@angular/common';

interface Weather {
  wind: number;
  sky: string;
}

@Component({
  selector: 'gf-weather-panel',
  imports: [JsonPipe, UpperCasePipe],
  template: `
    <aside class="weather" [class.storm]="storm()" [style.--wind]="wind()">
      <h4>{{ place() | uppercase }}</h4>
      @if (failed()) {
        <p class="error">No report from {{ place() }}</p>
      } @else if (report(); as weather) {
        <p>{{ weather.sky }}, wind {{ weather.wind }}</p>
        @if (details) { <pre>{{ weather | json }}</pre> }
      } @else {
        <p class="wait">waiting …</p>
      }
      <button type="button" (click)="details = !details">Details</button>
      <button type="button" (click)="load()">Again</button>
      <small>{{ log().join(', ') }}</small>
    </aside>
  `,
})
export class WeatherPanelComponent implements OnInit {
  readonly place = input('Holm');
  readonly limit = input(8);
  readonly report = signal<Weather | null>(null);
  readonly failed = signal(false);
  readonly log = signal<string[]>([]);
  readonly wind = computed(() => this.report()?.wind ?? 0);
  readonly storm = computed(() => this.wind() >= this.limit());
  details = false;

  private readonly destroyed = inject(DestroyRef);

  ngOnInit(): void {
    this.load();
    const timer = setInterval(() => this.load(), 30000);
    this.destroyed.onDestroy(() => clearInterval(timer));
  }

  load(): void {
    fetch(`/api/weather?place=${this.place()}`)
      .then((reply) => reply.json())
      .then((weather: Weather) => {
        this.report.set(weather);
        this.failed.set(false);
        this.log.update((list) => [...list, `${weather.wind}`]);
      })
      .catch(() => this.failed.set(true));
  }
}
