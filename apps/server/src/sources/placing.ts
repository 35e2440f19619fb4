// Where a range is to lie, as it came over HTTP, and the stretches this makes.
import { anchorsOf, type RangeEnding, type RangeShape, type Stretch } from '@dellum/core';
import type { RangePlaceDto } from '@dellum/contract';
import { fieldWithKey } from '../structure/structure.service.js';
import { registerOf } from '../structure/sheetAccess.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import type { Trx } from '../database/database.js';
import type { EntriesStore } from '../entries/entries.store.js';
import type { Caller } from '../access/access.js';
import { notFound, ProblemError } from '../problems/index.js';

/** Lists and tables of source sheets only. */
export function sourceOf(build: HouseBuild, registerId: string, caller: Caller): RegisterBuild {
  const register = registerOf(build, registerId, caller);
  if (!register.source) throw notFound('This list');
  return register;
}

const noCells = () => new ProblemError('no-cells', 'Select the cells that the range takes first; it would lie over none.');

/** The stretches of a range over the place. All lists of `headings` are read from their top. */
export async function stretchesAt(
  trx: Trx,
  entries: EntriesStore,
  build: HouseBuild,
  caller: Caller,
  shape: RangeShape,
  place: RangePlaceDto,
  ends: RangeEnding,
): Promise<Stretch[]> {
  const registers = [...new Set(place.registerIds)].map((id) => sourceOf(build, id, caller));
  if (shape === 'headings') return Promise.all(registers.map((register) => headed(trx, entries, caller, register, ends)));
  const [register] = registers;
  const fields = [...new Set(place.fields)].map((key) => fieldWithKey(register!, key).key);
  if (fields.length === 0 || (shape === 'list' && fields.length > 1))
    throw new ProblemError('no-cells', 'Choose the one field that the range reads, or the fields of its levels.');
  if (shape === 'levels' && fields.length < 2)
    throw new ProblemError('no-cells', 'Levels want at least two fields: a group and what it holds.');
  const rows = await entries.all(trx, { houseId: caller.houseId, registerId: register!.id });
  const known = new Set(rows.map(({ id }) => id));
  // The rows between are counted; where the range begins and ends is somebody's word.
  if ([place.entries[0], place.entries.at(-1)].some((entry) => entry !== undefined && !known.has(entry)))
    throw new ProblemError('no-cells', 'A row that you chose is not there any more. Choose the cells again.');
  const anchors = anchorsOf(rows, place.entries, ends);
  if (!anchors) throw noCells();
  return [{ registerId: register!.id, fields, ...anchors }];
}

async function headed(trx: Trx, entries: EntriesStore, caller: Caller, register: RegisterBuild, ends: RangeEnding): Promise<Stretch> {
  const [field] = register.fields;
  if (!field || register.fields.length > 1)
    throw new ProblemError(
      'kind-unfit',
      `“${register.title}” is a table; headings are read from lists of one field. Choose levels for a table.`,
    );
  const stretch = { registerId: register.id, fields: [field.key], start: { at: 'top' } as const };
  if (ends !== 'fixed') return { ...stretch, end: { ends } };
  const rows = await entries.all(trx, { houseId: caller.houseId, registerId: register.id });
  return { ...stretch, end: { ends, entry: rows.at(-1)?.id ?? null } };
}
