import { Module } from '@nestjs/common';
import { ChangesStore } from './changes.store.js';
import { ListenerService } from './listener.service.js';

@Module({ providers: [ChangesStore, ListenerService], exports: [ChangesStore, ListenerService] })
export class ChangesModule {}
