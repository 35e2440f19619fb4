// Rows by very many keys: an array is one parameter, of which a statement has 65,535 at most, and nothing is written out for each key.
import { sql, type RawBuilder } from 'kysely';

/** Equal to one of these ids. */
export const amongIds = (ids: Iterable<string>): RawBuilder<string> => sql<string>`any(${[...ids]}::uuid[])`;

/** Equal to one of these texts. */
export const amongTexts = (texts: Iterable<string>): RawBuilder<string> => sql<string>`any(${[...texts]}::text[])`;
