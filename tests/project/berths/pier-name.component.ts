import { Component, EventEmitter, Input, Output } from '@angular/core';

@Component({
  selector: 'app-pier-name',
  standalone: false,
  template: `<p><b>{{ name }}</b> <button type="button" (click)="change()">Rename</button></p>`,
})
export class PierNameComponent {
  @Input() name = 'Holm';
  @Output() nameChange = new EventEmitter<string>();

  change(): void {
    this.nameChange.emit(this.name + '!');
  }
}
