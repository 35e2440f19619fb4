// A condition on entries: what they hold in some fields is one of given combinations.
import { sql, type RawBuilder, type Sql } from 'kysely';

/** Only entries that hold one of these combinations in some fields together; null for a blank. */
export type HoldsOneOf = readonly { readonly keys: readonly string[]; readonly holdings: readonly (readonly (string | null)[])[] }[];

/** The values of a text as rows hold it: several, or one. */
export const partsOf = (text: ReturnType<Sql>): RawBuilder<string[]> => sql<string[]>`string_to_array(${text}, ${separator})`;
const separator = '\u001F';

/** One field compares with a list of values; several together with a list of combinations. */
function holdsIn({ keys, holdings }: HoldsOneOf[number]): RawBuilder<boolean> {
  const [key, ...more] = keys;
  if (more.length === 0) {
    const values = holdings.flatMap(([value]) => value ?? []);
    const blank = values.length < holdings.length;
    const held = sql<boolean>`(cells ->> ${key!} = any(${values}::text[]) or ${partsOf(sql`cells ->> ${key!}`)} && ${values}::text[])`;
    return blank ? sql<boolean>`(not cells ? ${key!} or ${held})` : held;
  }
  const own = sql`jsonb_build_array(${sql.join(keys.map((one) => sql`cells ->> ${one}`))})`;
  return sql<boolean>`${own} in (select jsonb_array_elements(${JSON.stringify(holdings)}::jsonb))`;
}

/** True for entries that hold one of the combinations; for none where there are none. */
export function holdsOneOf(holds: HoldsOneOf): RawBuilder<boolean> {
  const some = holds.filter(({ holdings }) => holdings.length > 0);
  return some.length === 0 ? sql<boolean>`false` : sql<boolean>`(${sql.join(some.map(holdsIn), sql` or `)})`;
}
