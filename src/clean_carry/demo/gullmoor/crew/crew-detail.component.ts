import { NgIf, TitleCasePipe } from '@angular/common';
import { Component, EventEmitter, Input, OnChanges, Output, SimpleChanges } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Member } from './member';

@Component({
  selector: 'gf-crew-detail',
  standalone: true,
  imports: [NgIf, FormsModule, TitleCasePipe],
  templateUrl: './crew-detail.component.html',
  styleUrls: ['./crew-detail.component.css'],
})
export class CrewDetailComponent implements OnChanges {
  @Input() member: Member | null = null;
  @Output() renamed = new EventEmitter<string>();

  name = '';
  fault = '';

  ngOnChanges(changes: SimpleChanges): void {
    if (changes['member']) {
      this.name = this.member?.name ?? '';
      this.fault = '';
    }
  }

  save(): void {
    const name = this.name.trim();
    if (!name) {
      this.fault = 'A name is missing.';
      return;
    }
    this.fault = '';
    this.renamed.emit(name);
  }
}
