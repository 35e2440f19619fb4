// Reads a JSON Schema in a thread of its own.
import { schemaParts, type SchemaParts } from '@dellum/core';
import { shapeFault } from '../api/bodyShape.js';
import { idsOutOf } from './idsOutOf.js';

/** What it is made of. */
const mostMembers = 200_000;

/** `why`: it cannot be read, in a sentence. */
export type SchemaRead = SchemaParts | { readonly why: string };

export function read(held: Uint8Array): SchemaRead {
  const bytes = Buffer.from(held.buffer, held.byteOffset, held.byteLength);
  const text = bytes.toString('utf8').replace(/^\uFEFF/u, '');
  if (shapeFault(text, { members: mostMembers, objects: mostMembers }))
    return { why: 'The schema is nested too deep, or has too many members. Bring a part of it.' };
  let schema: unknown;
  try {
    schema = JSON.parse(text);
  } catch {
    return { why: 'The schema is no JSON. Mend it where the file was made, and bring it again.' };
  }
  const none = 'The schema names no members of an object, so there is no field in it. Bring one that has “properties”.';
  return schemaParts(schema, idsOutOf(bytes)('part')) ?? { why: none };
}
