// HTTP for upkeep; administrators only.
import { Controller, Get } from '@nestjs/common';
import type { Upkeep } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { UpkeepService } from './upkeep.service.js';

@Controller('upkeep')
@For('administrator')
export class UpkeepController {
  constructor(private readonly upkeep: UpkeepService) {}

  @Get()
  all(@Asking() caller: Caller): Promise<Upkeep> {
    return this.upkeep.all(caller);
  }
}
