import { Component, Input, OnChanges, OnDestroy, SimpleChanges } from '@angular/core';
import { CommonModule } from '@angular/common';

@Component({
  selector: 'gf-tide-fetch',
  standalone: true,
  imports: [CommonModule],
  template: `
    <p *ngIf="failed; else measured" role="alert">No answer from {{ pier }}</p>
    <ng-template #measured><p>{{ level === null ? 'Measuring …' : pier + ': ' + level }}</p></ng-template>
  `,
})
export class TideFetch implements OnChanges, OnDestroy {
  @Input({ required: true }) load!: (pier: string) => Promise<number>;
  @Input({ required: true }) pier!: string;

  level: number | null = null;
  failed = false;
  private asked = 0;

  ngOnChanges(changes: SimpleChanges): void {
    if (changes['pier']) {
      this.ask();
    }
  }

  ngOnDestroy(): void {
    this.asked += 1;
  }

  private async ask(): Promise<void> {
    this.asked += 1;
    const mine = this.asked;
    try {
      const found = await this.load(this.pier);
      if (mine !== this.asked) {
        return;
      }
      this.level = found;
      this.failed = false;
    } catch {
      if (mine === this.asked) {
        this.failed = true;
      }
    }
  }
}
