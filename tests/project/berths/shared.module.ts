import { NgModule } from '@angular/core';
import { CommonModule } from '@angular/common';
import { PierNameComponent } from './pier-name.component';

@NgModule({ imports: [CommonModule], declarations: [PierNameComponent], exports: [CommonModule, PierNameComponent] })
export class SharedModule {}
