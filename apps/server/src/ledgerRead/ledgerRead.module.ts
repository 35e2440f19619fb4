import { Module } from '@nestjs/common';
import { StructureModule } from '../structure/structure.module.js';
import { LedgerReadController } from './ledgerRead.controller.js';
import { LedgerReadService } from './ledgerRead.service.js';

@Module({ imports: [StructureModule], controllers: [LedgerReadController], providers: [LedgerReadService] })
export class LedgerReadModule {}
