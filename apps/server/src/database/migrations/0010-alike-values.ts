// Values that one would take for the same thing written differently are found together: for fields without repeats.
import { sql, type Kysely } from 'kysely';

/** Blanks of all kinds and the signs that nobody sees, in PostgreSQL's regular expressions. */
const unseen = String.raw`[\s\u0085\u00AD\u034F\u061C\u115F\u1160\u1680\u17B4\u17B5\u180B-\u180F\u200B-\u200F\u2028-\u202E\u205F-\u206F\u2800\u3000\u3164\uFE00-\uFE0F\uFEFF\uFFA0\U000E0000-\U000E0FFF]+`;

export async function up(db: Kysely<unknown>): Promise<void> {
  // Two texts with one match key have one alike key; that the other way round does not hold is for the core to judge.
  await sql`
    create function alike_key(value text) returns text language sql immutable parallel safe as ${sql.raw(`$$
      select md5(regexp_replace(normalize(upper(lower(normalize(value, NFKC) collate "und-x-icu") collate "und-x-icu"), NFKC), '${unseen}', '', 'g'))
    $$`)}`.execute(db);
  await sql`create index value_counts_alike on value_counts (house_id, field_id, alike_key(value))`.execute(db);
}
