import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { CountsModule } from '../counts/counts.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { SourcesModule } from '../sources/sources.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { ClosingsService } from './closings.service.js';
import { FieldKindsService } from './fieldKinds.service.js';
import { SheetsController } from './sheets.controller.js';
import { SheetsService } from './sheets.service.js';

@Module({
  imports: [ChangesModule, CountsModule, EntriesModule, LedgerModule, SourcesModule, StructureModule],
  controllers: [SheetsController],
  providers: [ClosingsService, FieldKindsService, SheetsService],
  exports: [SheetsService],
})
export class SheetsModule {}
