// A house with a register of 1,000,000 entries of 14 fields, one of them bound to a catalog.
import { randomUUID } from 'node:crypto';
import { loadHouse, type HouseBlueprint } from '@dellum/demo';
import { type Database, PlacesStore, posGap } from '@dellum/server';
import type { BuildView, FieldView, RegisterView } from '@dellum/contract';
import { sql } from 'kysely';
import { serve, signIn, type Caller, type Server } from './server.js';

export const entries = 1_000_000;
export const values = Array.from({ length: 400 }, (_, at) => `Value ${at}`);
const keys = ['visit', 'pilot', 'day', 'quay', 'status', ...Array.from({ length: 9 }, (_, at) => `field_${at}`)];

export interface Million {
  readonly houseId: string;
  readonly key: string;
  readonly server: Server;
  readonly administrator: Caller;
  readonly register: RegisterView;
  readonly pilot: FieldView;
  readonly list: RegisterView;
  readonly catalogId: string;
}

function blueprint(key: string): HouseBlueprint {
  const rule = { catalog: 'Pilots', mayBeBlank: true, others: 'refuse' as const, hint: '', refusalText: '' };
  return {
    key,
    name: 'Bench',
    demo: false,
    people: [{ name: 'Bench', signIn: 'bench', role: 'administrator', password: 'bench-password' }],
    sourceSheets: [
      { title: 'Lists', note: '', lists: [{ heading: 'Pilots', texts: values, ranges: [{ name: 'Pilots', from: 0, ends: 'last' }] }] },
    ],
    catalogs: [{ title: 'Pilots', note: '', ranges: ['Pilots'] }],
    entrySheets: [
      {
        title: 'Visits',
        note: '',
        fields: keys.map((field) => ({
          key: field,
          heading: field,
          kind: field === 'day' ? ('date' as const) : ('text' as const),
          width: 100,
          ...(field === 'pilot' && { rule }),
        })),
        entries: [],
      },
    ],
  };
}

/** Fills the register by one statement; value counts by another, as the loader does. */
async function fill(database: Database, houseId: string, registerId: string): Promise<void> {
  const db = database.kysely;
  const others = keys.slice(5).map((key, at) => sql`${key}::text, 'text ' || (n * ${at + 3}::bigint % 5000)`);
  await sql`
    insert into entries (house_id, register_id, id, pos, cells)
    select ${houseId}, ${registerId}, gen_random_uuid(), n * ${posGap.toString()}::bigint,
      jsonb_build_object('visit', 'V' || n, 'pilot', 'Value ' || (n * 7919 % ${values.length}::bigint), 'day', to_char(date '2024-01-01' + (n % 730)::int, 'YYYY-MM-DD'), 'quay', 'Quay ' || (n % 20), 'status', 'Status ' || (n / 20 % 6), ${sql.join(others)})
    from generate_series(1::bigint, ${entries}) as n`.execute(db);
  await sql`
    insert into value_counts (house_id, field_id, value, entries)
    select ${houseId}, fields.id, cell.value, count(*) from entries
    cross join lateral jsonb_each_text(cells) as cell(key, value)
    join fields on fields.house_id = entries.house_id and fields.register_id = entries.register_id and fields.key = cell.key
    where entries.register_id = ${registerId} group by fields.id, cell.value`.execute(db);
  await sql`vacuum analyze entries, value_counts`.execute(db);
  await database.transaction((trx) =>
    new PlacesStore().countIn(
      trx,
      { houseId, registerId },
      Array.from({ length: entries }, (_, at) => posGap * BigInt(at + 1)),
      1,
    ),
  );
}

/** Waits until the combinations of some fields are counted. */
export async function areKept(database: Database, houseId: string, keys: readonly string[]): Promise<void> {
  for (;;) {
    const { rows } = await sql`
      select from kept_combinations where house_id = ${houseId} and keys = ${[...keys].sort()}::text[] and state = 'counted'`.execute(
      database.kysely,
    );
    if (rows.length > 0) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

export async function million(database: Database, databaseUrl: string): Promise<Million> {
  const key = `bench-${randomUUID()}`;
  const houseId = await loadHouse(database.kysely, blueprint(key));
  const server = await serve(databaseUrl);
  const administrator = await signIn(server.base, key);
  const build = await administrator.call<BuildView>('GET', '/build');
  const register = build.sheets.find(({ kind }) => kind === 'entry')!.registers[0]!;
  const list = build.sheets.find(({ kind }) => kind === 'source')!.registers[0]!;
  await fill(database, houseId, register.id);
  return {
    houseId,
    key,
    server,
    administrator,
    register,
    list,
    pilot: register.fields.find((field) => field.key === 'pilot')!,
    catalogId: build.catalogs[0]!.id,
  };
}
