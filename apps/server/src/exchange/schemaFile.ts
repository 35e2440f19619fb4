// A JSON Schema (draft 2020-12) as what can be brought into a house: a sheet with its rules, and the lists that it names.
import { schemaParts } from '@dellum/core';
import { shapeFault } from '../api/bodyShape.js';
import { ProblemError } from '../problems/index.js';
import type { Incoming } from './houseArchive.js';
import { idsOutOf } from './idsOutOf.js';
import { listRows } from './listRows.js';

const largest = 8 * 1024 * 1024;
const mostMembers = 200_000;

const wrong = (words: string) => new ProblemError('not-valid', words, { faults: { file: words } });

/** Throws a problem that says what is wrong with it. */
export function openSchema(bytes: Buffer): Incoming {
  const ids = idsOutOf(bytes);
  const made = schemaParts(heldIn(bytes), ids('part'));
  if (!made) throw wrong('The schema names no members of an object, so there is no field in it. Bring one that has “properties”.');
  const { parts, rows, said } = made;
  return { of: 'schema', name: parts.sheets[0]!.title, at: null, parts, said, entries: listRows(rows, ids) };
}

function heldIn(bytes: Buffer): unknown {
  if (bytes.length > largest) throw wrong(`A schema may have ${largest / 1024 / 1024} MB, and this one has more. Bring a part of it.`);
  const text = bytes.toString('utf8').replace(/^\uFEFF/u, '');
  if (shapeFault(text, { members: mostMembers, objects: mostMembers }))
    throw wrong('The schema is nested too deep, or has too many members. Bring a part of it.');
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw wrong('The schema is no JSON. Mend it where the file was made, and bring it again.');
  }
}
