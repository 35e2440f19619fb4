// A small house of its own for each test file, and people who speak to its server over HTTP.
import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import { loadHouse, type HouseBlueprint } from '@dellum/demo';
import { CatalogsService, createServer, Database, migrate, WebhooksService, WorkersService, type ReachableConfig } from '@dellum/server';
import {
  roles,
  type BuildView,
  type CatalogView,
  type EntryView,
  type FieldView,
  type Problem,
  type RegisterView,
  type Role,
} from '@dellum/contract';
import { sql } from 'kysely';
import { inject } from 'vitest';

const password = 'correct-horse-1';
export const pilots = ['Tam Ossel', 'Bryn Calloway', 'Rook Tansy'];

const rule = { catalog: 'Pilots', mayBeBlank: true, others: 'refuse' as const, hint: '', refusalText: '' };

/** Pilots in a growing list, a catalog of them, and a sheet of visits whose Pilot is bound to it. */
export function smallHouse(visits: readonly Readonly<Record<string, string>>[]): HouseBlueprint {
  return {
    key: `house-${randomUUID()}`,
    name: 'Test House',
    demo: false,
    people: roles.map((role) => ({ name: `The ${role}`, signIn: role, role, password })),
    sourceSheets: [
      {
        title: 'Lists',
        note: '',
        lists: [
          { heading: 'Pilots', texts: pilots, ranges: [{ name: 'Pilots', from: 0, ends: 'last' }] },
          { heading: 'Quays', texts: ['North', 'South'], ranges: [] },
        ],
      },
    ],
    catalogs: [{ title: 'Pilots', note: '', ranges: ['Pilots'] }],
    entrySheets: [
      {
        title: 'Visits',
        note: '',
        fields: [
          { key: 'visit', heading: 'Visit', kind: 'text', width: 90 },
          { key: 'pilot', heading: 'Pilot', kind: 'text', width: 120, rule },
          { key: 'arrival', heading: 'Arrival', kind: 'date', width: 100 },
        ],
        entries: visits,
      },
    ],
  };
}

export interface Answer<T> {
  readonly status: number;
  readonly body: T;
  readonly headers: Headers;
}

/** Somebody with a browser's cookie jar. */
export class Visitor {
  cookie = '';
  constructor(
    readonly base: string,
    private readonly who?: { readonly house: string; readonly role: Role },
  ) {}

  /** Signs in who has a name here and is not signed in yet; most tests need one or two of the four. */
  private async signIn(): Promise<void> {
    const { house, role } = this.who!;
    const response = await fetch(`${this.base}/api/v1/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ house, signIn: role, password }),
    });
    if (response.status !== 204) throw new Error(`sign-in answered ${response.status}`);
    this.cookie = response.headers.get('set-cookie')!.split(';')[0]!;
  }

  /** The cookie of somebody who is signed in by now. */
  async signedIn(): Promise<string> {
    if (this.who && this.cookie === '') await this.signIn();
    return this.cookie;
  }

  async call<T = Problem>(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer<T>> {
    await this.signedIn();
    const response = await fetch(`${this.base}/api/v1${path}`, {
      method,
      headers: {
        ...(this.cookie && { cookie: this.cookie }),
        ...(body !== undefined && { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const set = response.headers.get('set-cookie');
    if (set) this.cookie = set.split(';')[0]!;
    const text = await response.text();
    // A file is no JSON.
    const isJson = text !== '' && /json/u.test(response.headers.get('content-type') ?? '');
    return { status: response.status, body: (isJson ? JSON.parse(text) : null) as T, headers: response.headers };
  }

  async get<T>(path: string): Promise<T> {
    return (await this.call<T>('GET', path)).body;
  }
}

export interface Running {
  readonly base: string;
  readonly database: Database;
  /** Does what the clock does once a minute: sends what is due. */
  tick(): Promise<void>;
  /** Does what the clock does once an hour: counts anew what is used most. */
  recount(houseId: string): Promise<void>;
  /** Forgets what is of no use any more, as the clock does. */
  forget(): Promise<void>;
  /** Tells programs what is new in a house, as any server may do at any time. */
  tell(houseId: string): Promise<void>;
  /** How many connections the server holds open. */
  connections(): Promise<number>;
  close(): Promise<void>;
}

/** A database without any tables. */
export async function emptyDatabase(): Promise<string> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const shared = new Database(inject('databaseUrl'), 1);
  await sql`create database ${sql.id(name)}`.execute(shared.kysely);
  await shared.kysely.destroy();
  const url = new URL(inject('databaseUrl'));
  url.pathname = `/${name}`;
  return url.href;
}

/** A database of its own, for tests whose jobs no other test's server may take. */
export async function freshDatabase(): Promise<string> {
  const url = await emptyDatabase();
  const database = new Database(url, 1);
  await migrate(database.kysely);
  await database.kysely.destroy();
  return url;
}

export async function startServer(databaseUrl = inject('databaseUrl'), reachable?: ReachableConfig, templates?: string): Promise<Running> {
  const app = await createServer({ databaseUrl, ...(reachable && { reachable }), ...(templates !== undefined && { templates }) });
  await app.listen(0, '127.0.0.1');
  const { port } = app.getHttpServer().address() as AddressInfo;
  const database = new Database(databaseUrl, 4);
  return {
    base: `http://127.0.0.1:${port}`,
    database,
    recount: (houseId) => app.get(CatalogsService).recountUse(houseId),
    connections: () =>
      new Promise((done, failed) =>
        app.getHttpServer().getConnections((error: Error | null, count: number) => (error ? failed(error) : done(count))),
      ),
    forget: () => app.get(WorkersService).forget(),
    tell: (houseId) => app.get(WebhooksService).tell(houseId),
    tick: () => app.get(WorkersService).sendDue(),
    close: async () => {
      app.getHttpServer().closeAllConnections();
      await app.close();
      await database.kysely.destroy();
    },
  };
}

export interface House {
  readonly id: string;
  readonly key: string;
  readonly administrator: Visitor;
  readonly steward: Visitor;
  readonly clerk: Visitor;
  readonly reader: Visitor;
  readonly pilots: RegisterView;
  readonly visits: RegisterView;
  readonly pilotField: FieldView;
  readonly catalog: CatalogView;
  readonly rangeId: string;
}

export async function openHouse(
  { base, database }: Pick<Running, 'base' | 'database'>,
  visits: readonly Readonly<Record<string, string>>[],
): Promise<House> {
  const blueprint = smallHouse(visits);
  const id = await loadHouse(database.kysely, blueprint);
  const [administrator, steward, clerk, reader] = roles.map((role) => new Visitor(base, { house: blueprint.key, role }));
  const build = await administrator!.get<BuildView>('/build');
  const sheet = (title: string) => build.sheets.find((known) => known.title === title)!;
  const visitsRegister = sheet('Visits').registers[0]!;
  return {
    id,
    key: blueprint.key,
    administrator: administrator!,
    steward: steward!,
    clerk: clerk!,
    reader: reader!,
    pilots: sheet('Lists').registers.find(({ title }) => title === 'Pilots')!,
    visits: visitsRegister,
    pilotField: visitsRegister.fields.find(({ key }) => key === 'pilot')!,
    catalog: build.catalogs[0]!,
    rangeId: build.ranges[0]!.id,
  };
}

export async function entriesOf(visitor: Visitor, register: RegisterView, query = ''): Promise<readonly EntryView[]> {
  const page = await visitor.get<{ entries: EntryView[] }>(`/registers/${register.id}/entries?from=0&count=1000${query}`);
  return page.entries;
}

/**
 * Waits until a condition holds, by asking for it; fails after `seconds`: so many that a machine which stands still for a while is no
 * failure.
 */
export async function until(holds: () => Promise<boolean>, seconds = 60): Promise<void> {
  const end = Date.now() + seconds * 1000;
  while (!(await holds())) {
    if (Date.now() > end) throw new Error('what was waited for did not come');
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

/** The act that adds values at the end of a list, or above an entry. */
export const insertingAll = (texts: readonly string[], before?: string) => ({
  act: 'insert',
  fields: ['value'],
  rows: texts.map((text) => [text]),
  ...(before && { before }),
});
export const inserting = (text: string) => insertingAll([text]);
