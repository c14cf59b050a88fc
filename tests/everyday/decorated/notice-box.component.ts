import { Component, EventEmitter, HostBinding, HostListener, Input, Output } from '@angular/core';
import { NgIf } from '@angular/common';

type Tone = 'info' | 'warning' | 'danger';

@Component({
  selector: 'gf-notice-box',
  standalone: true,
  imports: [NgIf],
  template: `
    <div class="notice" [class.notice--open]="open" role="status">
      <header>
        <ng-content select="[title]"></ng-content>
        <button type="button" *ngIf="closable && open" (click)="close()" aria-label="Close">×</button>
      </header>
      <div class="body" *ngIf="open"><ng-content></ng-content></div>
      <footer><ng-content select="[actions]"></ng-content></footer>
    </div>
  `,
  styles: [':host { display: block; }', '.notice { border: 1px solid; }'],
})
export class NoticeBoxComponent {
  @Input() tone: Tone = 'info';
  @Input() closable = true;
  @Output() closed = new EventEmitter<void>();

  open = true;

  @HostBinding('class') get hostClass(): string {
    return `notice-${this.tone}`;
  }

  @HostListener('document:keydown.escape')
  onEscape(): void {
    if (this.closable && this.open) {
      this.close();
    }
  }

  close(): void {
    this.open = false;
    this.closed.emit();
  }
}
