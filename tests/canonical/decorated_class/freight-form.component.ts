import { Component, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';

@Component({
  selector: 'gf-freight-form',
  imports: [FormsModule],
  template: `
    <form (submit)="$event.preventDefault(); post()">
      <input name="what" [(ngModel)]="what" [ngModelOptions]="{ standalone: true }" />
      <label>
        <input name="fragile" type="checkbox" [(ngModel)]="fragile" [ngModelOptions]="{ standalone: true }" />
        fragile
      </label>
      <p>{{ what() }} {{ fragile() ? 'fragile' : 'sturdy' }}</p>
      <button type="submit" [disabled]="!what()">Send</button>
    </form>
  `,
})
export class FreightForm {
  readonly sent = output<{ what: string; fragile: boolean }>();

  protected readonly what = signal('');
  protected readonly fragile = signal(false);

  protected post(): void {
    if (!this.what()) {
      return;
    }
    this.sent.emit({ what: this.what(), fragile: this.fragile() });
    this.what.set('');
  }
}
