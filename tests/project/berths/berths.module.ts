import { NgModule } from '@angular/core';
import { SharedModule } from './shared.module';
import { BerthListComponent } from './berth-list.component';
import { BerthRowComponent } from './berth-row.component';

@NgModule({
  imports: [SharedModule],
  declarations: [BerthListComponent, BerthRowComponent],
  exports: [BerthListComponent],
})
export class BerthsModule {}
