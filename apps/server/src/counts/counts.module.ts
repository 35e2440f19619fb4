import { Module } from '@nestjs/common';
import { CombinationsStore } from './combinations.store.js';
import { CountsStore } from './counts.store.js';

@Module({ providers: [CountsStore, CombinationsStore], exports: [CountsStore, CombinationsStore] })
export class CountsModule {}
