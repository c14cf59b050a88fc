import { CommonModule } from '@angular/common';
import { Component, EventEmitter, Input, Output } from '@angular/core';
import { FormsModule } from '@angular/forms';

@Component({
  selector: 'gf-ticket-form',
  standalone: true,
  imports: [CommonModule, FormsModule],
  template: `
    <form (submit)="send($event)" [class.sent]="sent">
      <fieldset [disabled]="sent">
        <legend>Ticket to {{ island }}</legend>
        <label>Name <input type="text" name="name" [(ngModel)]="name" [ngModelOptions]="{ standalone: true }" /></label>
        <label>Cars <input type="number" name="cars" min="0" [value]="cars" (input)="setCars($any($event.target).value)" /></label>
        <textarea name="wishes" rows="2" [value]="wishes" (change)="wishes = $any($event.target).value"></textarea>
      </fieldset>
      <ul class="faults" *ngIf="faults.length">
        <li *ngFor="let fault of faults">{{ fault }}</li>
      </ul>
      <button type="submit">{{ sent ? 'Sent' : 'Order' }}</button>
      <button type="button" *ngIf="sent" (click)="reset()">Another one</button>
    </form>
  `,
})
export class TicketFormComponent {
  @Input() island = 'Little Gull';
  @Output() ordered = new EventEmitter<{ name: string; cars: number; wishes: string }>();

  name = '';
  cars = 0;
  wishes = '';
  sent = false;
  faults: string[] = [];

  setCars(text: string): void {
    this.cars = Number(text) || 0;
  }

  send(event: Event): void {
    event.preventDefault();
    this.faults = this.check();
    if (this.faults.length === 0) {
      this.sent = true;
      this.ordered.emit({ name: this.name, cars: this.cars, wishes: this.wishes });
    }
  }

  reset(): void {
    this.name = '';
    this.cars = 0;
    this.wishes = '';
    this.sent = false;
  }

  private check(): string[] {
    const faults: string[] = [];
    if (!this.name.trim()) {
      faults.push('A name is missing.');
    }
    if (this.cars > 3) {
      faults.push('Three cars at most.');
    }
    return faults;
  }
}
