import { Component, input, signal } from '@angular/core';

@Component({
  selector: 'gf-notice-panel',
  template: `
    <section>
      <header><ng-content select="[header]"><h2>{{ title() }}</h2></ng-content></header>
      <button type="button" (click)="toggle()">{{ open() ? 'Hide' : 'Show' }}</button>
      @if (open()) {
        <div class="body"><ng-content /></div>
      }
    </section>
  `,
})
export class NoticePanel {
  readonly title = input('Notice');

  protected readonly open = signal(true);

  protected toggle(): void {
    this.open.update((open) => !open);
  }
}
