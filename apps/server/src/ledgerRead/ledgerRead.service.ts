// The ledger as one looks at it: narrowed, the newest first, part by part.
import { Injectable } from '@nestjs/common';
import { format, isOfKind, type FieldKind } from '@dellum/core';
import type { LedgerKind, LedgerLine, LedgerPage, LedgerQueryDto } from '@dellum/contract';
import { sql, type RawBuilder } from 'kysely';
import type { Caller } from '../access/access.js';
import type { LedgerDetail } from '../database/tables.js';
import { Questions } from '../database/questions.js';
import type { Reader } from '../database/database.js';
import { ProblemError } from '../problems/index.js';
import { zoneOf } from '../structure/days.js';
import { StructureService } from '../structure/structure.service.js';
import type { HouseBuild } from '../structure/structure.store.js';

export const linesAPage = 100;
/** So many values of an entry tell which one it was. */
const valuesTold = 3;

/** How the acts of each sort begin. */
const beginnings: { readonly [Kind in LedgerKind]: readonly string[] } = {
  entries: ['cell.', 'entry.', 'entries.', 'column.', 'carry.'],
  lists: ['item.', 'catalog.', 'range.', 'list.', 'table.', 'values.', 'linked.', 'request.', 'slip.'],
  rules: ['rule.'],
  sheets: ['sheet.', 'field.'],
  forms: ['form.', 'figure.'],
  people: ['person.', 'group.'],
  'sign-ins': ['session.'],
  house: ['house.', 'archive.'],
};

interface Row extends Omit<LedgerLine, 'at' | 'about'> {
  readonly at: Date;
  readonly detail: LedgerDetail | null;
  readonly person: string | null;
}

@Injectable()
export class LedgerReadService {
  constructor(
    private readonly questions: Questions,
    private readonly builds: StructureService,
  ) {}

  async page(caller: Caller, query: LedgerQueryDto): Promise<LedgerPage> {
    const lines = await this.lines(caller, query, linesAPage);
    const last = lines.at(-1);
    const more =
      last !== undefined && lines.length >= linesAPage && (await this.lines(caller, { ...query, before: last.id }, 1)).length > 0;
    return { lines, more };
  }

  /** The newest lines of a query: as many as `count`, and what else their acts wrote into the same entries. */
  async lines(caller: Caller, query: LedgerQueryDto, count: number): Promise<LedgerLine[]> {
    const build = await this.builds.now(caller.houseId);
    const where = sql.join(conditions(build, query), sql` and `);
    const rows = await this.questions.ask(caller, (db) => read(db, where, count));
    return rows.map(({ detail, person, at, ...row }) => ({
      ...row,
      at: at.toISOString(),
      about: aboutOf(build, row.registerId, row.act, detail, person),
    }));
  }
}

async function read(db: Reader, where: RawBuilder<unknown>, count: number): Promise<Row[]> {
  const { rows } = await sql<Row>`
    select line.id, line.at, people.name as by, line.act, line.register_id as "registerId", line.entry_id as "entryId",
      line.field_key as field, line.from_value as "from", line.to_value as "to", line.detail, other.name as person
    from ledger_lines as line
    left join people on people.house_id = line.house_id and people.id = line.person_id
    left join people other on other.house_id = line.house_id and line.act like 'person.%' and other.id::text = line.detail ->> 'id'
    where ${where} order by line.id desc fetch first ${sql.lit(count)} rows with ties`.execute(db);
  return rows;
}

function conditions(
  build: HouseBuild,
  { person, register, field, value, from, until, kind, before }: LedgerQueryDto,
): RawBuilder<unknown>[] {
  const zone = zoneOf(build.locale);
  for (const day of [from, until])
    if (day !== undefined && !isOfKind('date', day)) throw new ProblemError('not-valid', `“${day}” is not a day of the calendar.`);
  const all: (RawBuilder<unknown> | false)[] = [
    sql`line.house_id = ${build.houseId}`,
    person !== undefined && sql`line.person_id = ${person}`,
    register !== undefined && sql`line.register_id = ${register}`,
    field !== undefined && sql`line.field_key = ${field}`,
    value !== undefined &&
      sql`(line.from_value = ${value} or line.to_value = ${value} or (line.act like 'entry.%' and exists (
        select from jsonb_each_text(line.detail) as held where held.value = ${value})))`,
    from !== undefined && sql`line.at >= (${from}::date::timestamp at time zone ${zone})`,
    until !== undefined && sql`line.at < ((${until}::date + 1)::timestamp at time zone ${zone})`,
    kind !== undefined && sql`line.act like any (${beginnings[kind].map((beginning) => `${beginning}%`)}::text[])`,
    // As the index over them is made.
    kind !== undefined && kind !== 'entries' && sql`line.act not like 'cell.%' and line.act not like 'entry.%'`,
    before !== undefined && sql`line.id < ${before}`,
  ];
  return all.filter((condition) => condition !== false);
}

const textOf = (held: unknown): string | undefined => (typeof held === 'string' && held !== '' ? held : undefined);

/** What a line is about, as people know it. */
function aboutOf(
  build: HouseBuild,
  registerId: string | null,
  act: string,
  detail: LedgerDetail | null,
  person: string | null,
): string | null {
  if (!detail) return null;
  if (act.startsWith('entry.')) {
    // Of a sheet that is there, as the house writes its values; of one that is gone, as they were stored.
    const fields = build.registers.get(registerId ?? '')?.fields ?? Object.keys(detail).map((key) => ({ key, kind: 'text' as const }));
    const shown = (kind: FieldKind, value: string | undefined) => (value === undefined ? [] : [format(kind, value, build.locale)]);
    return (
      fields
        .flatMap(({ key, kind }) => shown(kind, textOf(detail[key])))
        .slice(0, valuesTold)
        .join(' · ') || null
    );
  }
  const catalog = textOf(detail['catalogId']);
  const linked = build.linked.find(({ id }) => id === detail['sourceId']);
  const range = detail['range'] as { name?: unknown } | undefined;
  return (
    person ??
    textOf(detail['title']) ??
    textOf(detail['name']) ??
    textOf(detail['heading']) ??
    textOf(range?.name) ??
    linked?.name ??
    (catalog === undefined ? undefined : build.catalogs.get(catalog)?.title) ??
    textOf(detail['from']) ??
    null
  );
}
