import { DecimalPipe, LowerCasePipe } from '@angular/common';
import { Component, computed, input, output, signal } from '@angular/core';

interface Cargo {
  id: string;
  what: string;
  tons: number;
  state: 'loaded' | 'waiting' | 'late';
}

@Component({
  selector: 'gf-cargo-table',
  imports: [DecimalPipe, LowerCasePipe],
  template: `
    <table class="cargo">
      <caption>{{ title() }}</caption>
      <thead>
        <tr>
          <th><button type="button" (click)="sortBy('what')">Cargo</button></th>
          <th><button type="button" (click)="sortBy('tons')">Tons</button></th>
          <th>State</th>
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.id; let i = $index, odd = $odd) {
          <tr [class.odd]="odd" (click)="opened.emit(row.id)">
            <td>{{ i + 1 }}. {{ row.what | lowercase }}</td>
            <td>{{ row.tons | number: '1.0-1' }}</td>
            <td>
              @switch (row.state) {
                @case ('loaded') { <b>on board</b> }
                @case ('late') { <i>late</i> }
                @default { waiting }
              }
            </td>
          </tr>
        } @empty {
          <tr><td colspan="3">Nothing to load</td></tr>
        }
      </tbody>
    </table>
    <p class="sum">{{ sum() | number }} tons</p>
  `,
})
export class CargoTableComponent {
  readonly cargo = input.required<Cargo[]>();
  readonly title = input('Manifest');
  readonly opened = output<string>();

  private readonly key = signal<'what' | 'tons'>('what');

  readonly rows = computed(() => {
    const key = this.key();
    return [...this.cargo()].sort((a, b) => (a[key] < b[key] ? -1 : a[key] > b[key] ? 1 : 0));
  });
  readonly sum = computed(() => this.cargo().reduce((total, one) => total + one.tons, 0));

  sortBy(key: 'what' | 'tons'): void {
    this.key.set(key);
  }
}
