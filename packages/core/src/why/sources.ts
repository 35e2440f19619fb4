// Why a catalog does not give a value although it stands in one of its sources: past the end of a range, left out by a
// filter, taken out by another part.
import { filterClause, partPhrase, type CatalogDefinition, type CatalogPart, type Filter, type PartNames } from '../catalogs/index.js';
import type { SourceStateReader } from '../impact/index.js';
import type { LeftOutWhy } from '../ranges/index.js';
import { matchKey } from '../text/index.js';
import { partAs, partItems } from '../catalogs/parts/index.js';
import type { RangeFinding } from '../upkeep/index.js';
import type { TraceStep } from './models.js';

const whys: { readonly [W in LeftOutWhy]: string } = {
  blank: 'it is blank',
  repeat: 'it repeats a value and is offered once',
  'past the end': 'it stands past the end of the range',
  'after the gap': 'it stands after the gap at which the range ends',
  'wrong kind': 'it does not fit the kind of its field',
};

const lost = (step: TraceStep['step'], words: string): TraceStep => ({ step, words, passed: false });

/** What the sources of a catalog are read by. */
export interface LostSources {
  readonly definition: CatalogDefinition;
  readonly reader: SourceStateReader;
  readonly names: PartNames;
  nameOf(companion: string): string;
  /** What the range doctor finds about a range, with cures. */
  findings(rangeId: string): readonly RangeFinding[];
}

/** Whether a part gives the value, in any spelling. */
const gives = (part: CatalogPart, key: string, reader: SourceStateReader): boolean =>
  partItems(part, reader).some(({ value }) => matchKey(value) === key);

function leftOutBy(part: CatalogPart, key: string, { reader, names, findings }: LostSources): TraceStep | undefined {
  const range = partAs('range', part);
  if (range) {
    const left = reader.taking(range.rangeId).leftOut.find(({ text }) => matchKey(text) === key);
    if (!left) return undefined;
    const { register, entry, ordinal } = left;
    const cure = findings(range.rangeId).find(
      (finding) => finding.cure !== null && finding.rows.some((row) => row.register === register && row.entry === entry),
    );
    return {
      ...lost('part', `It stands in row ${ordinal + 1} under the range ${names.range(range.rangeId)}, but ${whys[left.why]}.`),
      origin: { by: 'range', id: range.rangeId, rows: [{ register, entry, ordinal }] },
      ...(cure && { cure }),
    };
  }
  const query = partAs('query', part);
  if (query?.filter && gives({ ...query, filter: null }, key, reader)) {
    return lost(
      'filter',
      `It stands in ${names.register(query.registerId)}, but not where ${filterClause(query.filter, (field) => names.field(query.registerId, field))}.`,
    );
  }
  return undefined;
}

function joinedOut(definition: CatalogDefinition, key: string, reader: SourceStateReader, names: PartNames): TraceStep | undefined {
  const giving = definition.parts.find((part, at) => (at === 0 || part.join === 'or') && gives(part, key, reader));
  if (!giving) return undefined;
  const against = definition.parts.find(
    (part) => (part.join === 'without' && gives(part, key, reader)) || (part.join === 'and' && !gives(part, key, reader)),
  );
  if (against)
    return lost(
      'part',
      `${partPhrase(giving, names)} gives it, but ${against.join === 'without' ? 'it is taken out:' : 'it is not in'} ${partPhrase(against, names)}.`,
    );
  return undefined;
}

const filterLost = ({ conditions }: Filter, filter: Filter, nameOf: (field: string) => string): TraceStep =>
  lost('filter', `A part gives it, but the catalog offers only items where ${filterClause({ ...filter, conditions }, nameOf)}.`);

/** The step at which the sources lose a value that the catalog does not give. */
export function lostInSources(title: string, value: string, sources: LostSources): TraceStep {
  const { definition, reader, names, nameOf } = sources;
  const key = matchKey(value);
  const byJoin = joinedOut(definition, key, reader, names);
  if (byJoin) return byJoin;
  const given = definition.parts.some((part) => part.join !== 'without' && gives(part, key, reader));
  if (given && definition.filter) return filterLost(definition.filter, definition.filter, nameOf);
  for (const part of definition.parts) {
    const step = leftOutBy(part, key, sources);
    if (step) return step;
  }
  return lost(
    'part',
    definition.parts.length === 0
      ? `${title} has no parts yet, so it gives nothing.`
      : `No source of ${title} has it: ${definition.parts.map((part) => partPhrase(part, names)).join(', ')}.`,
  );
}
