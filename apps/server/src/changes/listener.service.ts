// One LISTEN connection a process. Each announcement is read from the change rows once and handed to the streams of
// its house. After a broken connection everything since the last number is read, so that nothing is missed; and the numbers are looked at
// from time to time, since a server may die between a change and its announcement.
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import type { Whereabouts } from '@dellum/contract';
import { sql } from 'kysely';
import pg from 'pg';
import { Database, type Reader } from '../database/database.js';
import { liveChannel } from './announcer.service.js';
import { ChangesStore, type NumberedChange } from './changes.store.js';

export type Hearer = (changes: readonly NumberedChange[]) => void;
/** `version`: of the build by which it was told, which a stream may not have heard of yet. */
export type PlaceHearer = (place: Whereabouts, version: number) => void;

interface HouseEars {
  readonly hearers: Set<Hearer>;
  seen: number;
  reading: boolean;
  again: boolean;
}

/** The channel on which people say where they are. */
const placesChannel = 'dellum_places';
/** The channel on which it is told that sessions of a house have ended; its payload is the house. */
const sessionsChannel = 'dellum_sessions';
const readAtOnce = 500;
const retryAfter = 500;
/** So often the numbers of houses are looked at; milliseconds. */
const looksEvery = 5000;

@Injectable()
export class ListenerService implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly houses = new Map<string, HouseEars>();
  private readonly placeHearers = new Map<string, Set<PlaceHearer>>();
  private readonly sessionHearers = new Map<string, Set<() => void>>();
  private readonly announcedHearers = new Set<(houseId: string) => void>();
  private readonly logger = new Logger('live');
  private client: pg.Client | undefined;
  private retry: NodeJS.Timeout | undefined;
  private look: NodeJS.Timeout | undefined;
  private stopped = false;

  constructor(
    private readonly database: Database,
    private readonly changes: ChangesStore,
  ) {}

  onApplicationBootstrap(): Promise<void> {
    this.look = setInterval(() => void this.lookAtNumbers(), looksEvery);
    return this.connect();
  }

  async onApplicationShutdown(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.retry);
    clearInterval(this.look);
    await this.client?.end().catch(() => undefined);
  }

  private async connect(): Promise<void> {
    if (this.stopped) return;
    const client = new pg.Client({ connectionString: this.database.directUrl, keepAlive: true });
    client.on('error', ({ message }) => this.reconnect(client, message));
    client.on('end', () => this.reconnect(client, 'it was ended'));
    client.on('notification', ({ channel, payload = '' }) => {
      if (channel === placesChannel) this.placed(payload);
      else if (channel === sessionsChannel) this.sessionsEnded(payload);
      else this.announced(payload);
    });
    try {
      await client.connect();
      await client.query(`listen ${liveChannel}; listen ${placesChannel}; listen ${sessionsChannel}`);
    } catch (error) {
      this.reconnect(client, error instanceof Error ? error.message : String(error));
      return;
    }
    this.client = client;
    for (const houseId of this.houses.keys()) this.read(houseId);
  }

  private reconnect(client: pg.Client, why: string): void {
    if (this.stopped || this.retry) return;
    client.removeAllListeners();
    client.on('error', () => undefined);
    client.end().catch(() => undefined);
    this.client = undefined;
    this.logger.warn(`The live connection to the database was lost (${why}); trying again. If this goes on, look whether PostgreSQL runs.`);
    this.retry = setTimeout(() => {
      this.retry = undefined;
      void this.connect();
    }, retryAfter);
  }

  /** Tells everybody of a house where somebody is; nothing is kept. */
  async tellPlace(houseId: string, place: Whereabouts, version: number): Promise<void> {
    await sql`select pg_notify(${placesChannel}, ${JSON.stringify({ houseId, place, version })})`.execute(this.database.kysely);
  }

  /** Tells the streams of a house, on every server, that sessions have ended. */
  async tellSessionsEnded(db: Reader, houseId: string): Promise<void> {
    await sql`select pg_notify(${sessionsChannel}, ${houseId})`.execute(db);
  }

  private sessionsEnded(houseId: string): void {
    for (const hearer of this.sessionHearers.get(houseId) ?? []) hearer();
  }

  /**
   * Hears in which house something has changed, of every house; returns how to stop. What changes while the connection is broken is not
   * heard.
   */
  hearAnnounced(hearer: (houseId: string) => void): () => void {
    this.announcedHearers.add(hearer);
    return () => void this.announcedHearers.delete(hearer);
  }

  /** Hears that sessions of a house have ended; returns how to stop. */
  hearSessions(houseId: string, hearer: () => void): () => void {
    return hearIn(this.sessionHearers, houseId, hearer);
  }

  private placed(payload: string): void {
    const { houseId, place, version } = JSON.parse(payload) as { houseId: string; place: Whereabouts; version: number };
    for (const hearer of this.placeHearers.get(houseId) ?? []) hearer(place, version);
  }

  /** Hears where people of a house are; returns how to stop. */
  hearPlaces(houseId: string, hearer: PlaceHearer): () => void {
    return hearIn(this.placeHearers, houseId, hearer);
  }

  private announced(payload: string): void {
    const [houseId, seq] = payload.split(':');
    if (!houseId) return;
    for (const hearer of this.announcedHearers) hearer(houseId);
    this.readUpTo(houseId, Number(seq));
  }

  private readUpTo(houseId: string, seq: number): void {
    const ears = this.houses.get(houseId);
    if (ears && seq > ears.seen) this.read(houseId);
  }

  /** Where the database is away, its connection tells when it is back. */
  private async lookAtNumbers(): Promise<void> {
    if (this.houses.size === 0 || !this.client) return;
    const newest = await this.changes.newest(this.database.kysely, [...this.houses.keys()]).catch(() => []);
    for (const { houseId, seq } of newest) this.readUpTo(houseId, seq);
  }

  /** Reads what came after the last number seen; one read at a time a house. */
  private read(houseId: string): void {
    const ears = this.houses.get(houseId);
    if (!ears) return;
    if (ears.reading) {
      ears.again = true;
      return;
    }
    ears.reading = true;
    void this.readOn(houseId, ears)
      .catch((error: unknown) =>
        this.logger.warn(
          `Changes could not be read (${error instanceof Error ? error.message : String(error)}); they follow when the database is back.`,
        ),
      )
      .finally(() => {
        ears.reading = false;
        if (ears.again) {
          ears.again = false;
          this.read(houseId);
        }
      });
  }

  private async readOn(houseId: string, ears: HouseEars): Promise<void> {
    for (;;) {
      const from = ears.seen;
      const found = await this.changes.after(this.database.kysely, houseId, from, readAtOnce);
      // Somebody came meanwhile who knows less.
      if (ears.seen < from) continue;
      if (found.length === 0) return;
      ears.seen = found.at(-1)!.seq;
      for (const hearer of ears.hearers) hearer(found);
      if (found.length < readAtOnce) return;
    }
  }

  /**
   * Hears the changes of a house from now on; returns how to stop. `from` is the newest number the hearer knows: what came since is heard,
   * whatever others have heard already. A hearer passes over what it knows.
   */
  hear(houseId: string, from: number, hearer: Hearer): () => void {
    const ears = this.houses.get(houseId) ?? { hearers: new Set(), seen: from, reading: false, again: false };
    this.houses.set(houseId, ears);
    ears.hearers.add(hearer);
    ears.seen = Math.min(ears.seen, from);
    // What was committed between the hearer's number and now is read at once.
    this.read(houseId);
    return () => {
      ears.hearers.delete(hearer);
      if (ears.hearers.size === 0 && this.houses.get(houseId) === ears) this.houses.delete(houseId);
    };
  }
}

function hearIn<H>(all: Map<string, Set<H>>, houseId: string, hearer: H): () => void {
  const hearers = all.get(houseId) ?? new Set();
  all.set(houseId, hearers);
  hearers.add(hearer);
  return () => {
    hearers.delete(hearer);
    if (hearers.size === 0 && all.get(houseId) === hearers) all.delete(houseId);
  };
}
