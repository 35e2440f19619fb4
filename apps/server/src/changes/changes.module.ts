import { Module } from '@nestjs/common';
import { AnnouncerService } from './announcer.service.js';
import { ChangesStore } from './changes.store.js';
import { ListenerService } from './listener.service.js';

@Module({ providers: [AnnouncerService, ChangesStore, ListenerService], exports: [AnnouncerService, ChangesStore, ListenerService] })
export class ChangesModule {}
