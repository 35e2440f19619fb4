// A figure as parts of a statement over entries: what is grouped by, the links that lead there, and what is measured.
import { catalogIdOf, partReads, type FigureDefinition, type FigurePath } from '@dellum/core';
import { sql, type Sql } from 'kysely';
import { asNumber, seen } from '../arrangements/arrangedSql.js';
import type { FieldBuild, HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { partsOf } from '../entries/holds.js';
import { carriesOf } from '../entries/judging.js';
import { ProblemError } from '../problems/index.js';

type Fragment = ReturnType<Sql>;

/** What stands in the statement of `FiguresStore.groups`; inner columns are of the register's own entries, as `e`. */
export interface FigureSql {
  readonly inner: Fragment;
  readonly joins: Fragment;
  readonly values: readonly Fragment[];
  /** The beginning of the day, and what makes a day of it again. What is no day is found to be none then. */
  readonly time: { readonly day: Fragment; readonly rest: string } | null;
  /** What is measured; `times`: how many entries a row stands for, where that is not one. */
  measures(times: Fragment | undefined): Fragment;
  readonly condition: Fragment;
}

/** The field at the end of a path, and for a link the key field by which its catalog names the other register's entries. */
export interface Reached {
  readonly field: FieldBuild;
  readonly register: RegisterBuild;
  readonly link?: { readonly field: FieldBuild; readonly key: string };
}

const unfit = (words: string) => new ProblemError('not-valid', words, { faults: { by: words } });

/** Follows a path through the build. Throws what to do where it leads nowhere. */
export function reach(build: HouseBuild, register: RegisterBuild, { field: key, through }: FigurePath): Reached {
  const own = (of: RegisterBuild, wanted: string): FieldBuild => {
    const found = of.fields.find((field) => field.key === wanted);
    if (!found) throw unfit(`${of.title} has no field “${wanted}” any more. Choose another one.`);
    return found;
  };
  if (!through) return { field: own(register, key), register };
  const link = own(register, through.link);
  const catalog = build.catalogs.get(catalogIdOf(link.rule) ?? '');
  const named = catalog?.definition.parts.map((part) => partReads(part).fields).find((fields) => fields?.registerId === through.registerId);
  const other = build.registers.get(through.registerId);
  if (!named || !other || link.kind === 'several values')
    throw unfit(`${link.heading} does not name entries of ${other?.title ?? 'the other register'} any more. Choose another field.`);
  return { field: own(other, key), register: other, link: { field: link, key: named.value } };
}

/** Collects the columns and joins that paths need; two ways through one link share them. */
class Collected {
  readonly inner: Fragment[] = [];
  readonly joins: Fragment[] = [];
  private readonly known = new Map<string, Fragment>();

  constructor(
    private readonly build: HouseBuild,
    private readonly register: RegisterBuild,
  ) {}

  private once(key: string, make: () => Fragment): Fragment {
    const made = this.known.get(key) ?? make();
    this.known.set(key, made);
    return made;
  }

  /** A column of the register's own entries. */
  own(field: FieldBuild): Fragment {
    return this.once(`own ${field.key}`, () => {
      const name = `c${this.inner.length}`;
      this.inner.push(sql`${seen(field.key, { carries: carriesOf(this.build, this.register) })} as ${sql.ref(name)}`);
      return sql.ref(`e.${name}`);
    });
  }

  /** What is held at the end of a path. */
  reached({ field, register, link }: Reached): Fragment {
    if (!link) return this.own(field);
    return this.once(`${link.field.key} ${register.id} ${field.key}`, () => {
      const name = `l${this.joins.length}`;
      const over = { carries: carriesOf(this.build, register) };
      // Where a key stands twice, it is the first entry that is meant.
      this.joins.push(sql`
        left join (
          select distinct on (key) ${seen(link.key, over)} as key, ${seen(field.key, over)} as value
          from entries where house_id = ${this.build.houseId} and register_id = ${register.id} order by key, pos
        ) as ${sql.ref(name)} on ${sql.ref(`${name}.key`)} = ${this.own(link.field)}`);
      return sql.ref(`${name}.value`);
    });
  }

  /** What is grouped by: of several values each by itself. */
  grouped(at: Reached): Fragment {
    const held = this.reached(at);
    if (at.field.kind !== 'several values') return held;
    return this.once(`each ${at.link?.field.key ?? ''} ${at.field.key}`, () => {
      const name = `v${this.joins.length}`;
      this.joins.push(sql`left join lateral unnest(${partsOf(held)}) as ${sql.ref(name)}(value) on true`);
      return sql.ref(`${name}.value`);
    });
  }
}

/** So much of a day is grouped by; with the rest behind it, it is the first day of its month or year. Weeks are put together afterwards. */
const stepLength = { day: 10, week: 10, month: 7, year: 4 } as const;
const partOfDay = { day: '', week: '', month: '-01', year: '-01-01' } as const;

/** The statement parts of a figure. `condition`: which entries are counted. */
export function figureSql(build: HouseBuild, register: RegisterBuild, { by, time, of }: FigureDefinition, condition: Fragment): FigureSql {
  const collected = new Collected(build, register);
  const values = by.map((path) => collected.grouped(reach(build, register, path)));
  const day = time && collected.reached(reach(build, register, time.path));
  const when = time && day && { day: sql`left(${day}, ${sql.lit(stepLength[time.step])})`, rest: partOfDay[time.step] };
  const number = of && asNumber(collected.reached(reach(build, register, of)));
  const measures = (times: Fragment | undefined) => {
    if (!number) return sql`0 as measured, null as sum, null as least, null as most`;
    const measured = times ? sql`coalesce(sum(${times}) filter (where ${number} is not null), 0)::bigint` : sql`count(${number})`;
    const sum = times ? sql`sum(${number} * ${times})` : sql`sum(${number})`;
    return sql`${measured} as measured, trim_scale(${sum})::text as sum, trim_scale(min(${number}))::text as least, trim_scale(max(${number}))::text as most`;
  };
  const inner = collected.inner.length > 0 ? sql.join(collected.inner) : sql`1 as one`;
  return { inner, joins: sql.join(collected.joins, sql` `), values, time: when, measures, condition };
}

/**
 * The fields of the register's own entries that a figure reads, so that entries which hold the same in them count alike. `readsIn`: what the
 * rule of a field reads, by which it is outside.
 */
export function fieldsRead({ by, time, of, only }: FigureDefinition, readsIn: (field: string) => readonly string[]): string[] {
  const paths = [...by, ...(time ? [time.path] : []), ...(of ? [of] : [])];
  return [
    ...new Set([
      ...paths.map(({ field, through }) => through?.link ?? field),
      ...only.flatMap((one) => [one.field, ...(one.only === 'outside' ? readsIn(one.field) : [])]),
    ]),
  ].sort();
}

/** The statement parts for finding the values of a link that lead to a value. */
export function linkSql(
  build: HouseBuild,
  register: RegisterBuild,
  path: FigurePath,
): { parts: Pick<FigureSql, 'inner' | 'joins' | 'values'>; link: Fragment } {
  const collected = new Collected(build, register);
  const at = reach(build, register, path);
  const value = collected.grouped(at);
  const link = collected.own(at.link!.field);
  return { parts: { inner: sql.join(collected.inner), joins: sql.join(collected.joins, sql` `), values: [value] }, link };
}
