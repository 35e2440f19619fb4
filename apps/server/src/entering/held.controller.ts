// HTTP for finding a value wherever entries hold it.
import { Controller, Get, Query } from '@nestjs/common';
import { HeldQueryDto, type HeldIn } from '@dellum/contract';
import { Asking, everyRole, For, type Caller } from '../access/access.js';
import { EntryPagesService } from './entryPages.service.js';

@Controller('held')
@For(...everyRole)
export class HeldController {
  constructor(private readonly pages: EntryPagesService) {}

  @Get()
  heldIn(@Asking() caller: Caller, @Query() query: HeldQueryDto): Promise<HeldIn[]> {
    return this.pages.heldIn(caller, query.value);
  }
}
