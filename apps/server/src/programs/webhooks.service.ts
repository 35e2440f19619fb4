// Webhooks: a program is told that something has changed, and asks for it by its token. Messages say what, and hold nothing of it.
import { randomBytes, randomUUID } from 'node:crypto';
import { Injectable, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { MadeWebhook, WebhookDto, WebhookMessageKind, WebhookMessageView, Webhooks } from '@dellum/contract';
import type { Caller } from '../access/access.js';
import { ChangesStore } from '../changes/changes.store.js';
import { ListenerService } from '../changes/listener.service.js';
import { Database, lockBuild, type Trx } from '../database/database.js';
import { JobsService } from '../jobs/jobs.service.js';
import { LedgerStore } from '../ledger/ledger.store.js';
import { Reachable } from '../linked/reachable.js';
import { freeName, notFound, ProblemError } from '../problems/index.js';
import { StructureService } from '../structure/structure.service.js';
import { mustBeThere } from './chosen.js';
import { secretWords, send } from './sending.js';
import { changesSince, isNews, whatChanged } from './whatChanged.js';
import { WebhooksStore, type DueMessage, type NewMessage } from './webhooks.store.js';

const secretBytes = 32;
/** So many a house may have: each is told at the same time. */
const most = 30;
/** What happens within so many milliseconds is told in one message. */
const gathered = 1000;
/** A webhook of which no message is taken for three days is switched off (seconds). */
const patience = 3 * 24 * 3600;

const types = { changes: 'house.changed', test: 'webhook.test' } as const;

@Injectable()
export class WebhooksService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly soon = new Map<string, NodeJS.Timeout>();
  private stop: (() => void) | undefined;

  constructor(
    private readonly database: Database,
    private readonly builds: StructureService,
    private readonly store: WebhooksStore,
    private readonly changes: ChangesStore,
    private readonly listener: ListenerService,
    private readonly jobs: JobsService,
    private readonly ledger: LedgerStore,
    private readonly reachable: Reachable,
  ) {}

  onApplicationBootstrap(): void {
    this.stop = this.listener.hearAnnounced((houseId) => this.tellSoon(houseId));
  }

  onApplicationShutdown(): void {
    this.stop?.();
    for (const timer of this.soon.values()) clearTimeout(timer);
    this.soon.clear();
  }

  /** What is missed here, the job of every minute finds. */
  private tellSoon(houseId: string): void {
    if (this.soon.has(houseId)) return;
    const tell = async () => {
      this.soon.delete(houseId);
      if (await this.store.areThere(this.database.kysely, houseId)) await this.jobs.send(undefined, 'tell', [{ houseId }]);
    };
    this.soon.set(
      houseId,
      setTimeout(() => void tell().catch(() => undefined), gathered),
    );
  }

  async list({ houseId }: Caller): Promise<Webhooks> {
    return { receivers: [...(await this.receiversOf(houseId)).keys()], webhooks: await this.store.all(this.database.kysely, houseId) };
  }

  private async receiversOf(houseId: string): Promise<ReadonlyMap<string, string>> {
    const { key } = await this.database.kysely.selectFrom('houses').select('key').where('id', '=', houseId).executeTakeFirstOrThrow();
    return this.reachable.of(key).receivers;
  }

  /** What messages are signed with is told once. */
  async make(caller: Caller, dto: WebhookDto): Promise<MadeWebhook> {
    const receivers = await this.receiversOf(caller.houseId);
    if (!receivers.has(dto.receiver)) {
      const words = `There is no address “${dto.receiver}” that may be told. Choose one of the list.`;
      throw new ProblemError('not-valid', words, { faults: { receiver: words } });
    }
    return this.database.transaction(async (trx) => {
      await lockBuild(trx, caller.houseId);
      mustBeThere(await this.builds.at(trx, caller.houseId), dto);
      const standing = await this.store.all(trx, caller.houseId);
      if (standing.length >= most)
        throw new ProblemError('too-large', `A house has at most ${most} webhooks. Remove one that nobody needs.`);
      const name = freeName(
        dto.name,
        'name',
        standing.map((webhook) => webhook.name),
      );
      const id = randomUUID();
      const secret = randomBytes(secretBytes);
      const { newest } = await this.changes.horizon(trx, caller.houseId);
      await this.store.add(trx, caller.houseId, { ...dto, id, name, secret, seq: newest, madeBy: caller.id });
      await this.wrote(trx, caller, 'webhook.made', id, name);
      return { id, secret: secretWords(secret) };
    });
  }

  remove(caller: Caller, id: string): Promise<void> {
    return this.database.transaction(async (trx) => {
      const name = await this.store.remove(trx, caller.houseId, id);
      if (name === undefined) throw notFound('This webhook');
      await this.wrote(trx, caller, 'webhook.ended', id, name);
    });
  }

  /** Tells again after it was switched off, from the last change on that was told. */
  turnOn(caller: Caller, id: string): Promise<void> {
    return this.database.transaction(async (trx) => {
      const name = await this.store.turnOn(trx, caller.houseId, id);
      if (name === undefined) throw notFound('This webhook');
      await this.wrote(trx, caller, 'webhook.on', id, name);
      await this.jobs.send(trx, 'tell', [{ houseId: caller.houseId }]);
    });
  }

  async messages({ houseId }: Caller, id: string): Promise<WebhookMessageView[]> {
    await this.mustBe(houseId, id);
    return this.store.messages(this.database.kysely, houseId, id);
  }

  private async mustBe(houseId: string, id: string): Promise<void> {
    const known = await this.store.all(this.database.kysely, houseId);
    if (!known.some((webhook) => webhook.id === id)) throw notFound('This webhook');
  }

  /** Sends a message that says nothing, and what came of it; where it is taken, what waits goes out, too. */
  async test({ houseId }: Caller, id: string): Promise<WebhookMessageView> {
    await this.mustBe(houseId, id);
    const message = messageOf(id, 'test', {});
    const due = await this.database.transaction(async (trx) => {
      await this.store.put(trx, houseId, [message]);
      return this.store.claim(trx, houseId, message.id);
    });
    await this.deliver(houseId, due);
    const sent = (await this.store.messages(this.database.kysely, houseId, id)).find((known) => known.id === message.id);
    if (!sent) throw notFound('This webhook');
    return sent;
  }

  /** Tells what is new in a house, and sends again what is due. */
  async tell(houseId: string): Promise<void> {
    const due = await this.database.transaction(async (trx) => {
      await this.putNews(trx, houseId);
      return this.store.claim(trx, houseId);
    });
    await this.deliver(houseId, due);
  }

  private async putNews(trx: Trx, houseId: string): Promise<void> {
    const quiet = await this.store.quiet(trx, houseId);
    if (quiet.length === 0) return;
    const build = await this.builds.at(trx, houseId);
    const since = await changesSince(trx, this.changes, houseId, Math.min(...quiet.map(({ seq }) => seq)));
    const news = quiet.map(({ id, seq, ...own }) => ({ id, changed: whatChanged(since, seq, build, own) }));
    const told = await this.store.put(
      trx,
      houseId,
      news.filter(({ changed }) => isNews(changed)).map(({ id, changed }) => messageOf(id, 'changes', changed)),
    );
    const none = news.filter(({ changed }) => !isNews(changed)).map(({ id }) => id);
    await this.store.toldUpTo(trx, houseId, [...told, ...none], since.changes?.at(-1)?.seq ?? since.newest);
  }

  private async deliver(houseId: string, due: readonly DueMessage[]): Promise<void> {
    if (due.length === 0) return;
    const receivers = await this.receiversOf(houseId);
    const tried = await Promise.all(
      due.map(async (message) => ({ ...(await send(receivers.get(message.receiver), message)), ...idsOf(message) })),
    );
    await this.database.transaction(async (trx) => {
      const off = await this.store.note(trx, houseId, tried, patience);
      await this.ledger.write(
        trx,
        houseId,
        off.map(({ id, name }) => ({ personId: null, act: 'webhook.off', detail: { id, name } })),
      );
      // What has changed meanwhile, or waited, goes out now that messages are taken.
      if (tried.some(({ taken }) => taken)) await this.jobs.send(trx, 'tell', [{ houseId }]);
    });
  }

  private wrote(trx: Trx, { houseId, id: personId }: Caller, act: string, id: string, name: string): Promise<void> {
    return this.ledger.write(trx, houseId, [{ personId, act, detail: { id, name } }]);
  }
}

const idsOf = ({ webhookId, id, kind }: DueMessage) => ({ webhookId, id, kind });

function messageOf(webhookId: string, kind: WebhookMessageKind, data: object): NewMessage {
  const body = JSON.stringify({ type: types[kind], timestamp: new Date().toISOString(), data });
  return { webhookId, id: randomUUID(), kind, body };
}
