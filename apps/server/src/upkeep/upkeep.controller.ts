// HTTP for upkeep; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { TellApartDto, type ToldApart, type Upkeep } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { ToldApartService } from './toldApart.service.js';
import { UpkeepService } from './upkeep.service.js';

@Controller('upkeep')
@For('administrator')
export class UpkeepController {
  constructor(
    private readonly upkeep: UpkeepService,
    private readonly apart: ToldApartService,
  ) {}

  @Get()
  all(@Asking() caller: Caller): Promise<Upkeep> {
    return this.upkeep.all(caller);
  }

  /** Says that two values that look alike are two things. */
  @Post('told-apart')
  tellApart(@Asking() caller: Caller, @Body() dto: TellApartDto): Promise<ToldApart> {
    return this.apart.tell(caller, dto);
  }

  @Delete('told-apart/:id')
  @HttpCode(204)
  forget(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.apart.forget(caller, id);
  }
}
