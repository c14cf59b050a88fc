import { CommonModule } from '@angular/common';
import { AfterViewInit, ChangeDetectionStrategy, ChangeDetectorRef, Component, ElementRef, EventEmitter, Output, ViewChild } from '@angular/core';

interface Berth {
  name: string;
  depth: number;
}

@Component({
  selector: 'gf-berth-search',
  standalone: true,
  imports: [CommonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="search">
      <label>Berth <input #field type="search" [value]="query" (input)="type(field.value)" (keyup.enter)="find()" /></label>
      <button type="button" (click)="find()" [disabled]="busy">{{ busy ? 'Looking …' : 'Find' }}</button>
      <p class="error" *ngIf="error">{{ error }}</p>
      <ul *ngIf="found.length">
        <li *ngFor="let berth of found" (click)="chosen.emit(berth.name)">{{ berth.name }}, {{ berth.depth }} m</li>
      </ul>
    </div>
  `,
})
export class BerthSearchComponent implements AfterViewInit {
  @Output() chosen = new EventEmitter<string>();
  @ViewChild('field') field!: ElementRef<HTMLInputElement>;

  query = '';
  busy = false;
  error = '';
  found: Berth[] = [];

  constructor(private changes: ChangeDetectorRef) {}

  ngAfterViewInit(): void {
    this.field.nativeElement.focus();
  }

  type(text: string): void {
    this.query = text;
  }

  async find(): Promise<void> {
    this.busy = true;
    this.error = '';
    try {
      const reply = await fetch(`/api/berths?name=${encodeURIComponent(this.query)}`);
      this.found = await reply.json();
    } catch {
      this.error = 'The harbour office does not answer.';
    }
    this.busy = false;
    this.changes.markForCheck();
  }
}
