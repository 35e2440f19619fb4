// HTTP for columns that want to be lists; administrators only.
import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { GatherDto, type ColumnProfile } from '@dellum/contract';
import { Asking, For, type Caller } from '../people/guard.js';
import { IdPipe } from '../problems/index.js';
import { GatherService } from './gather.service.js';

@Controller('fields/:id')
@For('administrator')
export class ColumnsController {
  constructor(private readonly gathering: GatherService) {}

  @Get('profile')
  profile(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<ColumnProfile> {
    return this.gathering.profile(caller, id);
  }

  /** Makes the column a list: gathered, cleaned and bound in one act. */
  @Post('list')
  gather(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: GatherDto): Promise<{ catalogId: string }> {
    return this.gathering.gather(caller, id, dto);
  }
}
