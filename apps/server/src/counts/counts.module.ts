import { Module } from '@nestjs/common';
import { CountsStore } from './counts.store.js';

@Module({ providers: [CountsStore], exports: [CountsStore] })
export class CountsModule {}
