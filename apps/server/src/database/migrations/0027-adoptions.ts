// Houses out of files: the files, what was found in them, what was changed by hand, and what came of it.
import { sql, type Kysely } from 'kysely';

const statements = [
  `create table adoptions (
     house_id uuid not null references houses (id) on delete cascade, id uuid not null, person_id uuid not null, at timestamptz not null default now(),
     state text not null, run int not null default 0, why text, said jsonb not null default '[]', found jsonb, mends jsonb not null, headings jsonb not null default '[]',
     applied jsonb, primary key (house_id, id), foreign key (house_id, person_id) references people (house_id, id))`,
  `create table adopted_files (
     house_id uuid not null, adoption_id uuid not null, ord int not null, name text not null, bytes int not null, primary key (house_id, adoption_id, ord),
     foreign key (house_id, adoption_id) references adoptions (house_id, id) on delete cascade)`,
  `create table adopted_parts (
     house_id uuid not null, adoption_id uuid not null, ord int not null, part int not null, bytes bytea not null,
     primary key (house_id, adoption_id, ord, part),
     foreign key (house_id, adoption_id, ord) references adopted_files (house_id, adoption_id, ord) on delete cascade)`,
];

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of statements) await sql.raw(statement).execute(db);
}
