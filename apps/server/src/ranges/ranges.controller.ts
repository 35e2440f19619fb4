// HTTP for named ranges and the range doctor; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { ChangeRangeDto, CureDto, MakeRangeDto, type Outcome, type RangeLine, type RangeLook } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { RangesService } from './ranges.service.js';

@Controller('ranges')
@For('administrator')
export class RangesController {
  constructor(private readonly ranges: RangesService) {}

  @Get()
  lines(@Asking() caller: Caller): Promise<readonly RangeLine[]> {
    return this.ranges.lines(caller);
  }

  @Post()
  @HttpCode(200)
  make(@Asking() caller: Caller, @Body() dto: MakeRangeDto): Promise<Outcome> {
    return this.ranges.make(caller, dto);
  }

  @Post('cures')
  @HttpCode(200)
  cure(@Asking() caller: Caller, @Body() dto: CureDto): Promise<Outcome> {
    return this.ranges.cure(caller, dto);
  }

  @Patch(':id')
  change(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeRangeDto): Promise<Outcome> {
    return this.ranges.change(caller, id, dto);
  }

  /** What the change would do; nothing is stored. */
  @Post(':id/look')
  @HttpCode(200)
  look(@Asking() caller: Caller, @Param('id', IdPipe) id: string, @Body() dto: ChangeRangeDto): Promise<RangeLook> {
    return this.ranges.look(caller, id, dto);
  }

  @Delete(':id')
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<Outcome> {
    return this.ranges.remove(caller, id);
  }
}
