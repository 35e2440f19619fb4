// HTTP for webhooks; administrators only.
import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { WebhookDto, type MadeWebhook, type WebhookMessageView, type Webhooks } from '@dellum/contract';
import { Asking, For, type Caller } from '../access/access.js';
import { IdPipe } from '../problems/index.js';
import { WebhooksService } from './webhooks.service.js';

@Controller('webhooks')
@For('administrator')
export class WebhooksController {
  constructor(private readonly webhooks: WebhooksService) {}

  @Get()
  list(@Asking() caller: Caller): Promise<Webhooks> {
    return this.webhooks.list(caller);
  }

  /** What messages are signed with is in this answer and nowhere else. */
  @Post()
  make(@Asking() caller: Caller, @Body() dto: WebhookDto): Promise<MadeWebhook> {
    return this.webhooks.make(caller, dto);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.webhooks.remove(caller, id);
  }

  /** The newest messages, and what was answered to them. */
  @Get(':id/messages')
  messages(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<WebhookMessageView[]> {
    return this.webhooks.messages(caller, id);
  }

  /** Sends a message that says nothing, and answers what came of it. */
  @Post(':id/tests')
  test(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<WebhookMessageView> {
    return this.webhooks.test(caller, id);
  }

  /** Tells again after it was switched off. */
  @Post(':id/on')
  @HttpCode(204)
  turnOn(@Asking() caller: Caller, @Param('id', IdPipe) id: string): Promise<void> {
    return this.webhooks.turnOn(caller, id);
  }
}
