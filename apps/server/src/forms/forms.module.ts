import { Module } from '@nestjs/common';
import { CompiledModule } from '../compiled/compiled.module.js';
import { EnteringModule } from '../entering/entering.module.js';
import { EntriesModule } from '../entries/entries.module.js';
import { LedgerModule } from '../ledger/ledger.module.js';
import { PeopleModule } from '../people/people.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { FillingService } from './filling.service.js';
import { FormsController } from './forms.controller.js';
import { FormsService } from './forms.service.js';
import { FormsStore } from './forms.store.js';
import { OpenFillingService } from './openFilling.service.js';
import { OpenFormsController } from './openForms.controller.js';

@Module({
  imports: [CompiledModule, EnteringModule, EntriesModule, LedgerModule, PeopleModule, StructureModule],
  controllers: [FormsController, OpenFormsController],
  providers: [FillingService, FormsService, FormsStore, OpenFillingService],
})
export class FormsModule {}
