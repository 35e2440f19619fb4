// HTTP for columns that want to be lists; administrators only.
import { Body, Controller, Delete, Get, Param, Post } from '@nestjs/common';
import { GatherDto, type ColumnView, type Gathered, type GatherTakenBack } from '@dellum/contract';
import { Asking, For, type Caller, Takes } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { GatherService } from './gather.service.js';

@Controller('fields/:id')
@For('administrator')
export class ColumnsController {
  constructor(private readonly gathering: GatherService) {}

  @Get('profile')
  profile(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<ColumnView> {
    return this.gathering.profile(caller, id);
  }

  /** When the column was made the list that it is; null when it was not. */
  @Get('list')
  gathered(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Gathered | null> {
    return this.gathering.gathered(caller, id);
  }

  /** Makes the column what it was before it was made a list. */
  @Delete('list')
  takeBack(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<GatherTakenBack> {
    return this.gathering.takeBack(caller, id);
  }

  /** Makes the column a list: gathered, cleaned and bound in one act. */
  @Post('list')
  @Takes('blocks')
  gather(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: GatherDto): Promise<{ catalogId: string }> {
    return this.gathering.gather(caller, id, dto);
  }
}
