// HTTP for the ledger; administrators only.
import { Controller, Get, Query, Res } from '@nestjs/common';
import { LedgerQueryDto, type LedgerPage } from '@dellum/contract';
import type { Response } from 'express';
import { Asking, For, type Caller } from '../access/access.js';
import { ledgerFile } from './ledgerFile.js';
import { LedgerReadService } from './ledgerRead.service.js';

@Controller('ledger')
@For('administrator')
export class LedgerReadController {
  constructor(private readonly ledger: LedgerReadService) {}

  @Get()
  page(@Asking() caller: Caller, @Query() query: LedgerQueryDto): Promise<LedgerPage> {
    return this.ledger.page(caller, query);
  }

  /** The same lines as CSV (RFC 4180), as far as the file goes. */
  @Get('file')
  async file(@Asking() caller: Caller, @Query() query: LedgerQueryDto, @Res() response: Response): Promise<void> {
    await ledgerFile((before, count) => this.ledger.lines(caller, { ...query, ...(before !== undefined && { before }) }, count), response);
  }
}
