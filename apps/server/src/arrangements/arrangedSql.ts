// An arrangement as SQL over entries: which ones are shown, and in which order.
import { isNumeric, valuesOf, type Arrangement, type Carry, type Catalog, type Only } from '@dellum/core';
import { sql, type RawBuilder, type Sql } from 'kysely';
import type { FieldBuild, RegisterBuild } from '../structure/structure.store.js';
import { holdsOneOf, partsOf, type HoldsOneOf } from '../entries/holds.js';

type Fragment = ReturnType<Sql>;

export interface ArrangedOver {
  readonly houseId: string;
  readonly register: RegisterBuild;
  readonly carries: readonly Carry[];
  readonly catalogs: ReadonlyMap<string, Catalog>;
  /** What is outside in a field, as rows hold it. */
  readonly outside: ReadonlyMap<string, HoldsOneOf>;
  /** The sorted fields whose values are few and all counted as they are: these are brought into order instead of the entries. */
  readonly few: ReadonlySet<string>;
}

/** What everybody sees in a field: the row's text, or its new spelling while a correction is under way. */
export function seen(key: string, { carries }: Pick<ArrangedOver, 'carries'>): Fragment {
  const own = carries.filter(({ field }) => field === key);
  if (own.length === 0) return sql`cells ->> ${key}`;
  return sql`case cells ->> ${key} ${sql.join(
    own.map(({ from, to }) => sql`when ${from} then ${to}`),
    sql` `,
  )} else cells ->> ${key} end`;
}

/** A stored decimal number; null for any other text. */
export const asNumber = (text: Fragment): Fragment => sql`case when ${text} ~ '^-?[0-9]+([.][0-9]+)?$' then (${text})::numeric end`;

function within(text: Fragment, field: FieldBuild, from: string | null, until: string | null): Fragment {
  const value = isNumeric(field.kind) ? asNumber(text) : text;
  const bound = (at: string) => (isNumeric(field.kind) ? sql`${at}::numeric` : sql`${at}`);
  return sql`(${sql.join([...(from === null ? [] : [sql`${value} >= ${bound(from)}`]), ...(until === null ? [] : [sql`${value} <= ${bound(until)}`]), sql`${value} is not null`], sql` and `)})`;
}

function passes(only: Only, over: ArrangedOver): Fragment {
  const text = seen(only.field, over);
  switch (only.only) {
    case 'values': {
      const values = only.values.filter((value) => value !== '');
      const held = sql`(${text} = any(${values}::text[]) or ${partsOf(text)} && ${values}::text[])`;
      return values.length < only.values.length ? sql`(${text} is null or ${held})` : held;
    }
    case 'outside':
      return holdsOneOf(over.outside.get(only.field) ?? []);
    case 'text':
      return sql`position(lower(${only.text}) in lower(${text})) > 0`;
    case 'within':
      return within(
        text,
        over.register.fields.find(({ key }) => key === only.field)!,
        only.from,
        only.until,
      );
  }
}

interface Ordered {
  readonly order: Fragment;
  readonly join: Fragment;
}

/** The order of texts that a field may hold: catalog order for what its catalog has, then numbers by size, then as people sort texts. Blanks last. */
function orderOfTexts(at: number, text: Fragment, direction: Fragment, field: FieldBuild, { catalogs }: ArrangedOver): Ordered {
  const values = valuesOf(field.rule, catalogs) ?? [];
  const ranks = sql.ref(`ranks${at}`);
  const ranked = values.length > 0;
  const natural = isNumeric(field.kind)
    ? sql`${asNumber(text)} ${direction} nulls last`
    : sql`${text} collate natural_order ${direction} nulls last`;
  return {
    order: ranked ? sql`(${text}) is null, ${ranks}.rank ${direction} nulls last, ${natural}` : sql`(${text}) is null, ${natural}`,
    join: ranked ? sql`left join unnest(${values}::text[]) with ordinality as ${ranks}(value, rank) on ${ranks}.value = ${text}` : sql``,
  };
}

/** The order of entries by a field. Where its values are few, each is given its place once, and entries are compared by numbers; blank has none. */
function orderOf(at: number, direction: Fragment, field: FieldBuild, over: ArrangedOver): Ordered {
  const text = seen(field.key, over);
  if (!over.few.has(field.key)) return orderOfTexts(at, text, direction, field, over);
  const { order, join } = orderOfTexts(at, sql`held.value`, direction, field, over);
  const places = sql.ref(`places${at}`);
  return {
    order: sql`${places}.place nulls last`,
    join: sql`left join (
      select held.value, dense_rank() over (order by ${order}) as place
      from (select distinct value from value_numbers where house_id = ${over.houseId} and field_id = ${field.id}) as held ${join}
    ) as ${places} on ${places}.value = ${text}`,
  };
}

/** What stands after `select … from entries`: joins and conditions; and the order. */
export function arrangedSql(
  arrangement: Pick<Arrangement, 'sort' | 'only'>,
  over: ArrangedOver,
): { readonly joins: Fragment; readonly condition: RawBuilder<boolean>; readonly order: Fragment } {
  const sorts = arrangement.sort.map(({ field, direction }, at) =>
    orderOf(
      at,
      direction === 'down' ? sql`desc` : sql`asc`,
      over.register.fields.find(({ key }) => key === field)!,
      over,
    ),
  );
  const conditions = arrangement.only.map((only) => passes(only, over));
  return {
    joins: sql.join(
      sorts.map(({ join }) => join),
      sql` `,
    ),
    condition: conditions.length > 0 ? sql<boolean>`(${sql.join(conditions, sql` and `)})` : sql<boolean>`true`,
    order: sql.join([...sorts.map(({ order }) => order), sql`pos`]),
  };
}
