// Values of plain letters and digits, which most are, have their alike key in a tenth of the time; it is the same key.
import { sql, type Kysely } from 'kysely';

/** As in the migration that made it: blanks of all kinds and the signs that nobody sees. */
const unseen = String.raw`[\s\u0085\u00AD\u034F\u061C\u115F\u1160\u1680\u17B4\u17B5\u180B-\u180F\u200B-\u200F\u2028-\u202E\u205F-\u206F\u2800\u3000\u3164\uFE00-\uFE0F\uFEFF\uFFA0\U000E0000-\U000E0FFF]+`;

export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create or replace function alike_key(value text) returns text language sql immutable parallel safe as ${sql.raw(`$$
      select case when value collate "C" ~ '^[ -~]*$' then md5(replace(upper(value collate "C"), ' ', '')) collate "default"
        else md5(regexp_replace(normalize(upper(lower(normalize(value, NFKC) collate "und-x-icu") collate "und-x-icu"), NFKC), '${unseen}', '', 'g')) collate "default" end
    $$`)}`.execute(db);
}
