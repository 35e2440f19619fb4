// HTTP for requests: whoever keeps a catalog answers the requests for it; everybody sees at the entry what became of one.
import { Body, Controller, Get, HttpCode, Param, Post } from '@nestjs/common';
import { AnswerRequestDto, type OwnRequest, type RequestAtEntry, type RequestCount, type RequestGroup } from '@dellum/contract';
import { Asking, everyRole, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { RequestsService } from './requests.service.js';

@Controller()
@For('administrator', 'steward')
export class RequestsController {
  constructor(private readonly requests: RequestsService) {}

  @Get('requests')
  waiting(@Asking() caller: Caller): Promise<RequestGroup[]> {
    return this.requests.waiting(caller);
  }

  @Get('requests/own')
  @For('administrator', 'clerk')
  own(@Asking() caller: Caller): Promise<OwnRequest[]> {
    return this.requests.own(caller);
  }

  @Get('requests/count')
  count(@Asking() caller: Caller): Promise<RequestCount> {
    return this.requests.count(caller);
  }

  @Post('requests/answers')
  @HttpCode(200)
  answer(@Asking() caller: Caller, @Body() dto: AnswerRequestDto): Promise<{ entries: number }> {
    return this.requests.answer(caller, dto);
  }

  @Get('registers/:registerId/requests')
  @For(...everyRole)
  ofRegister(@Asking() caller: Caller, @Param('registerId', IdPipe) registerId: string): Promise<RequestAtEntry[]> {
    return this.requests.ofRegister(caller, registerId);
  }
}
