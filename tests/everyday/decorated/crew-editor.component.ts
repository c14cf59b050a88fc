import { Component, computed, input, model, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';

interface Member {
  id: number;
  name: string;
  duty: string;
}

@Component({
  selector: 'gf-crew-editor',
  imports: [FormsModule],
  template: `
    <section class="crew">
      <h2>{{ ship() }}: {{ count() }} aboard</h2>
      @if (editing(); as member) {
        <input class="name" [(ngModel)]="draft" [attr.aria-label]="'Name of ' + member.duty" />
        <button type="button" (click)="save()" [disabled]="!draft.trim()">Save</button>
      } @else {
        <p>Choose somebody to rename.</p>
      }
      <ul>
        @for (member of members(); track member.id; let last = $last) {
          <li [class.last]="last">
            {{ member.name }} ({{ member.duty }})
            <button type="button" (click)="edit(member)">Rename</button>
          </li>
        } @empty {
          <li class="none">Nobody is aboard</li>
        }
      </ul>
    </section>
  `,
})
export class CrewEditorComponent {
  readonly ship = input('Skua');
  readonly members = model<Member[]>([]);
  readonly renamed = output<string>();
  readonly editing = signal<Member | null>(null);
  readonly count = computed(() => this.members().length);
  draft = '';

  edit(member: Member): void {
    this.editing.set(member);
    this.draft = member.name;
  }

  save(): void {
    const member = this.editing();
    if (!member) {
      return;
    }
    this.members.update((list) => list.map((one) => (one.id === member.id ? { ...one, name: this.draft } : one)));
    this.renamed.emit(this.draft);
    this.editing.set(null);
  }
}
