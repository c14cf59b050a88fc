import { CommonModule } from '@angular/common';
import { Component, EventEmitter, Input, Output } from '@angular/core';
import { Member } from './member';
import { RankPipe } from './rank.pipe';

@Component({
  selector: 'gf-crew-list',
  standalone: true,
  imports: [CommonModule, RankPipe],
  template: `
    <section class="crew">
      <h2>{{ ship | uppercase }}</h2>
      <p *ngIf="members.length === 0; else list" class="empty">Nobody is on the list.</p>
      <ng-template #list>
        <ol>
          <li
            *ngFor="let member of members; let i = index; trackBy: byId"
            [class.ashore]="!member.aboard"
            [class.chosen]="member.id === chosenId"
          >
            <button type="button" (click)="choose(member)">{{ i + 1 }}. {{ member.name }} ({{ member | gfRank }})</button>
            <small *ngIf="!member.aboard">ashore</small>
          </li>
        </ol>
      </ng-template>
      <p class="sum">{{ aboard }} of {{ members.length }} aboard</p>
    </section>
  `,
  styles: [`
    .ashore { opacity: 0.6; }
    .chosen { font-weight: bold; }
  `],
})
export class CrewList {
  @Input() ship = 'Tern';
  @Input() members: Member[] = [];
  @Output() chosen = new EventEmitter<Member>();

  chosenId: number | null = null;

  get aboard(): number {
    return this.members.filter((member) => member.aboard).length;
  }

  choose(member: Member): void {
    this.chosenId = member.id;
    this.chosen.emit(member);
  }

  byId(index: number, member: Member): number {
    return member.id;
  }
}
