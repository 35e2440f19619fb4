import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { SheetsStore } from './sheets.store.js';
import { StructureService } from './structure.service.js';
import { StructureStore } from './structure.store.js';

@Module({
  imports: [ChangesModule],
  providers: [StructureService, StructureStore, SheetsStore],
  exports: [StructureService, StructureStore, SheetsStore],
})
export class StructureModule {}
