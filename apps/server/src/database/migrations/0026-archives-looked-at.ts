// House archives that somebody looks at before they are brought in; forgotten after an hour.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table looked_archives (
     house_id uuid not null references houses (id) on delete cascade, id uuid not null, person_id uuid not null, at timestamptz not null default now(),
     primary key (house_id, id), foreign key (house_id, person_id) references people (house_id, id) on delete cascade)`,
  `create table looked_archive_parts (
     house_id uuid not null, archive_id uuid not null, part int not null, bytes bytea not null, primary key (house_id, archive_id, part),
     foreign key (house_id, archive_id) references looked_archives (house_id, id) on delete cascade)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
