// HTTP for named ranges; administrators only.
import { Body, Controller, Delete, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { ChangeRangeDto, MakeRangeDto, type Outcome } from '@dellum/contract';
import { Asking, For, type Caller } from '../people/guard.js';
import { IdPipe } from '../problems/index.js';
import { SourcesService } from '../sources/sources.service.js';

@Controller('ranges')
@For('administrator')
export class RangesController {
  constructor(private readonly sources: SourcesService) {}

  @Post()
  @HttpCode(200)
  make(@Asking() caller: Caller, @Body() dto: MakeRangeDto): Promise<Outcome> {
    return this.sources.makeRange(caller, dto);
  }

  @Patch(':id')
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeRangeDto): Promise<Outcome> {
    return this.sources.changeRange(caller, id, dto);
  }

  @Delete(':id')
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Outcome> {
    return this.sources.deleteRange(caller, id);
  }
}
