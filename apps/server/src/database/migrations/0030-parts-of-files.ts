// Parts of files are packed in a way that costs a tenth of the time; whether a file is UTF-8 is known from when it came; how far a proposal is
// read or applied is noted beside it, since it is locked while it is applied.
import { sql, type Kysely } from 'kysely';

const statements = [
  ...['download_parts', 'returned_parts', 'looked_archive_parts', 'adopted_parts'].map(
    (table) => `alter table ${table} alter bytes set compression lz4`,
  ),
  `alter table adopted_files add column is_utf8 boolean`,
  `create table adoption_progress (
     house_id uuid not null, adoption_id uuid not null, done bigint not null, total bigint, primary key (house_id, adoption_id),
     foreign key (house_id, adoption_id) references adoptions (house_id, id) on delete cascade)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
