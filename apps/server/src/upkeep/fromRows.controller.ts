// HTTP for sheets that are made of pasted tables; administrators only.
import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { MakeFromRowsDto, TextRowsDto, type ProposedFieldView } from '@dellum/contract';
import { Asking, For, type Caller, Takes } from '../access/access.js';
import { FromRowsService } from './fromRows.service.js';

@Controller('sheets/from-rows')
@For('administrator')
export class FromRowsController {
  constructor(private readonly fromRows: FromRowsService) {}

  @Post('proposals')
  @HttpCode(200)
  @Takes('blocks')
  propose(@Asking() caller: Caller, @Body() dto: TextRowsDto): Promise<ProposedFieldView[]> {
    return this.fromRows.propose(caller, dto);
  }

  @Post()
  @Takes('blocks')
  make(@Asking() caller: Caller, @Body() dto: MakeFromRowsDto): Promise<{ id: string }> {
    return this.fromRows.make(caller, dto);
  }
}
