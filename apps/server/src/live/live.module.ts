import { Module } from '@nestjs/common';
import { ChangesModule } from '../changes/changes.module.js';
import { PeopleModule } from '../people/people.module.js';
import { StructureModule } from '../structure/structure.module.js';
import { LiveController } from './live.controller.js';

@Module({
  imports: [ChangesModule, PeopleModule, StructureModule],
  controllers: [LiveController],
  exports: [LiveController],
  providers: [LiveController],
})
export class LiveModule {}
