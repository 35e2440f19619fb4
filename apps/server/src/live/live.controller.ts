// The live stream over server-sent events: one a browser, in the order of the house's numbers.
import { type BeforeApplicationShutdown, Body, Controller, Get, HttpCode, Post, Query, Req, Res } from '@nestjs/common';
import { AtCellDto, hears, liveEvents } from '@dellum/contract';
import type { Response } from 'express';
import { StructureService, fieldWithKey } from '../structure/structure.service.js';
import { closedTo, registerOf } from '../structure/sheetAccess.js';
import { Database } from '../database/database.js';
import { Asking, everyRole, For, type Caller, type CallerRequest } from '../access/access.js';
import { todayOf } from '../structure/days.js';
import { SessionsService } from '../people/sessions.service.js';
import { ChangesStore, type NumberedChange } from '../changes/changes.store.js';
import { ListenerService } from '../changes/listener.service.js';
import { EventStream } from './eventStream.js';

const beatEvery = 15_000;
const beatsACheck = 20;
/** Streams of one session at once: a browser has one, shared by its windows. */
export const mostStreams = 20;
const mostMissed = 1000;

@Controller('live')
@For(...everyRole)
export class LiveController implements BeforeApplicationShutdown {
  /** By session. */
  private readonly open = new Map<string, Set<EventStream>>();

  constructor(
    private readonly database: Database,
    private readonly changes: ChangesStore,
    private readonly listener: ListenerService,
    private readonly sessions: SessionsService,
    private readonly builds: StructureService,
  ) {}

  /** How many streams are open. */
  get streams(): number {
    return [...this.open.values()].reduce((sum, own) => sum + own.size, 0);
  }

  /** `after`: the last number the browser knows; what came since is sent first, or `anew` when that is too much. */
  @Get()
  async stream(
    @Asking() caller: Caller,
    @Req() request: CallerRequest,
    @Res() response: Response,
    @Query('after') after?: string,
  ): Promise<void> {
    const stream = new EventStream(response);
    try {
      await this.tell(caller, request, stream, lastKnown(request.headers['last-event-id'] ?? after));
    } catch (error) {
      // The browser asks again by itself.
      stream.end();
      throw error;
    }
  }

  private async tell(caller: Caller, request: CallerRequest, stream: EventStream, known: number | undefined): Promise<void> {
    this.limit(request.token ?? '', stream);
    // Before anything is waited for: a session that ends from here on ends the stream.
    const endIfSignedOut = () => void this.endIfSignedOut(request, caller, stream);
    stream.onEnd(this.listener.hearSessions(caller.houseId, endIfSignedOut));
    const { newest, oldest } = await this.changes.horizon(this.database.kysely, caller.houseId);
    const catchesUp = known !== undefined && known <= newest && known + 1 >= oldest && newest - known <= mostMissed;
    let sent = catchesUp ? known : newest;
    stream.write(`retry: 1000\nevent: ${known === undefined || catchesUp ? liveEvents.ready : liveEvents.anew}\nid: ${sent}\ndata: {}\n\n`);

    let { version, closed } = await this.closedTo(caller);
    const tell = async (changes: readonly NumberedChange[]) => {
      for (const { seq, audience, body } of changes) {
        if (seq <= sent) continue;
        sent = seq;
        // From a change of the build on one hears of the sheets that one may look at by it.
        if (body.kind === 'build' && body.version > version) ({ version, closed } = await this.closedTo(caller));
        if (hears(caller.role, audience) && !('registerId' in body && closed.has(body.registerId)))
          stream.write(`event: ${liveEvents.change}\nid: ${seq}\ndata: ${JSON.stringify(body)}\n\n`);
        if (body.kind === 'people') endIfSignedOut();
      }
    };
    let told = Promise.resolve();
    // One after the other, in the order of their numbers. The browser of a stream that ends asks again.
    const inTurn = (act: () => Promise<void>) => {
      told = told.then(act).catch(() => stream.end());
    };
    const send = (changes: readonly NumberedChange[]) => inTurn(() => tell(changes));
    stream.onEnd(this.listener.hear(caller.houseId, sent, send));
    stream.onEnd(
      this.listener.hearPlaces(caller.houseId, (place, by) => {
        if (place.personId === caller.id) return;
        inTurn(async () => {
          if (by > version) ({ version, closed } = await this.closedTo(caller));
          if (!closed.has(place.registerId)) stream.write(`event: ${liveEvents.place}\ndata: ${JSON.stringify(place)}\n\n`);
        });
      }),
    );
    let beats = 0;
    const { locale } = await this.builds.now(caller.houseId);
    const tellDay = () => stream.write(`event: ${liveEvents.day}\ndata: ${todayOf(new Date(), locale)}\n\n`);
    tellDay();
    const beat = setInterval(() => {
      // Keeps the connection open; a page that stays open over midnight learns of the new day.
      tellDay();
      // A session ends by its own time, too.
      if (++beats % beatsACheck === 0) endIfSignedOut();
    }, beatEvery);
    stream.onEnd(() => clearInterval(beat));
  }

  /** The registers of which somebody hears nothing, and the build by which that is so. */
  private async closedTo(caller: Caller): Promise<{ version: number; closed: ReadonlySet<string> }> {
    const build = await this.builds.now(caller.houseId);
    return { version: build.version, closed: closedTo(build, caller) };
  }

  /** Of a session with very many streams the oldest goes. */
  private limit(session: string, stream: EventStream): void {
    const own = this.open.get(session) ?? new Set();
    this.open.set(session, own);
    own.add(stream);
    stream.onEnd(() => {
      own.delete(stream);
      if (own.size === 0 && this.open.get(session) === own) this.open.delete(session);
    });
    const [oldest] = own;
    if (own.size > mostStreams) oldest!.end();
  }

  /** Open streams would keep the server from closing; browsers come back by themselves. */
  beforeApplicationShutdown(): void {
    for (const own of this.open.values()) for (const stream of [...own]) stream.end();
  }

  /** Says where one is, to everybody who looks at the same sheet. */
  @Post('place')
  @HttpCode(204)
  async place(@Asking() caller: Caller, @Body() dto: AtCellDto): Promise<void> {
    const build = await this.builds.now(caller.houseId);
    const register = registerOf(build, dto.registerId, caller);
    if (dto.field !== undefined) fieldWithKey(register, dto.field);
    await this.listener.tellPlace(caller.houseId, { ...dto, personId: caller.id, name: caller.name }, build.version);
  }

  /** Ends the stream of someone who was signed out, has another role now, or must set up a second factor first. */
  private async endIfSignedOut(request: CallerRequest, caller: Caller, stream: EventStream): Promise<void> {
    const found = await this.sessions.callerOf(request.headers.cookie).catch(() => undefined);
    if (found?.caller.role !== caller.role || found.caller.needsFactor) stream.end();
  }
}

function lastKnown(text: string | string[] | undefined): number | undefined {
  if (typeof text !== 'string' || !/^\d{1,15}$/u.test(text)) return undefined;
  return Number(text);
}
