// The live stream over server-sent events: one a browser, in the order of the house's numbers.
import { Body, Controller, Get, HttpCode, Post, Query, Req, Res } from '@nestjs/common';
import { AtCellDto, hears, liveEvents } from '@dellum/contract';
import type { Response } from 'express';
import { StructureService, fieldWithKey, registerOf } from '../structure/structure.service.js';
import { Database } from '../database/database.js';
import { Asking, everyRole, For, type Caller, type CallerRequest } from '../access/access.js';
import { SessionsService } from '../people/sessions.service.js';
import { ChangesStore, type NumberedChange } from '../changes/changes.store.js';
import { ListenerService } from '../changes/listener.service.js';

const beatEvery = 15_000;
const mostMissed = 1000;

@Controller('live')
@For(...everyRole)
export class LiveController {
  constructor(
    private readonly database: Database,
    private readonly changes: ChangesStore,
    private readonly listener: ListenerService,
    private readonly sessions: SessionsService,
    private readonly builds: StructureService,
  ) {}

  /** `after`: the last number the browser knows; what came since is sent first, or `anew` when that is too much. */
  @Get()
  async stream(
    @Asking() caller: Caller,
    @Req() request: CallerRequest,
    @Res() response: Response,
    @Query('after') after?: string,
  ): Promise<void> {
    const { newest, oldest } = await this.changes.horizon(this.database.kysely, caller.houseId);
    const known = lastKnown(request.headers['last-event-id'] ?? after);
    const catchesUp = known !== undefined && known <= newest && known + 1 >= oldest && newest - known <= mostMissed;
    let sent = catchesUp ? known : newest;
    response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
    response.write(
      `retry: 1000\nevent: ${known === undefined || catchesUp ? liveEvents.ready : liveEvents.anew}\nid: ${sent}\ndata: {}\n\n`,
    );

    const send = (changes: readonly NumberedChange[]) => {
      for (const { seq, audience, body } of changes) {
        if (seq <= sent) continue;
        sent = seq;
        if (hears(caller.role, audience)) response.write(`event: ${liveEvents.change}\nid: ${seq}\ndata: ${JSON.stringify(body)}\n\n`);
        if (body.kind === 'people') void this.endIfSignedOut(request, caller, response);
      }
    };
    if (catchesUp) send(await this.changes.after(this.database.kysely, caller.houseId, known, mostMissed));
    const stopHearing = this.listener.hear(caller.houseId, sent, send);
    const stopPlaces = this.listener.hearPlaces(caller.houseId, (place) => {
      if (place.personId !== caller.id) response.write(`event: ${liveEvents.place}\ndata: ${JSON.stringify(place)}\n\n`);
    });
    const beat = setInterval(() => response.write(': beat\n\n'), beatEvery);
    request.on('close', () => {
      clearInterval(beat);
      stopHearing();
      stopPlaces();
    });
  }

  /** Says where one is, to everybody who looks at the same sheet. */
  @Post('place')
  @HttpCode(204)
  async place(@Asking() caller: Caller, @Body() dto: AtCellDto): Promise<void> {
    const register = registerOf(await this.builds.now(caller.houseId), dto.registerId, caller);
    if (dto.field !== undefined) fieldWithKey(register, dto.field);
    await this.listener.tellPlace(caller.houseId, { ...dto, personId: caller.id, name: caller.name });
  }

  /** Ends the stream of someone who was signed out or has another role now. */
  private async endIfSignedOut(request: CallerRequest, caller: Caller, response: Response): Promise<void> {
    const found = await this.sessions.callerOf(request.headers.cookie).catch(() => undefined);
    if (found?.caller.role !== caller.role) response.end();
  }
}

function lastKnown(text: string | string[] | undefined): number | undefined {
  if (typeof text !== 'string' || !/^\d{1,15}$/u.test(text)) return undefined;
  return Number(text);
}
