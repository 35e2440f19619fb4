import { Module } from '@nestjs/common';
import { LedgerStore } from './ledger.store.js';
import { SealsStore } from './seals.store.js';

@Module({ providers: [LedgerStore, SealsStore], exports: [LedgerStore, SealsStore] })
export class LedgerModule {}
