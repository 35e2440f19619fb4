import { Module } from '@nestjs/common';
import { EntriesStore } from './entries.store.js';
import { FormMarksStore } from './formMarks.store.js';
import { PlacesStore } from './places.store.js';

@Module({ providers: [EntriesStore, FormMarksStore, PlacesStore], exports: [EntriesStore, FormMarksStore, PlacesStore] })
export class EntriesModule {}
