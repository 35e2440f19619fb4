// Concepts as what is laid into a house: each scheme a list on one source sheet, with a range that grows and a catalog over it.
import type { KeptItem } from '../catalogs/index.js';
import type { SourceRange } from '../ranges/index.js';
import type { Cells } from '../registers/index.js';
import { addressKey, freeAmong, freeKeyAmong } from '../text/index.js';
import { noParts, type HouseParts, type PartsCatalog, type PartsRegister } from './houseParts.js';
import type { ReadConcept, ReadScheme } from './readConcepts.js';

export interface ConceptParts {
  readonly parts: HouseParts;
  /** By register, its rows. */
  readonly rows: ReadonlyMap<string, readonly Cells[]>;
}

const width = 180;

/** `newId`: an id that is nobody's. `several`: what the sheet is called that holds more than one list. */
export function conceptParts(schemes: readonly ReadScheme[], newId: () => string, several = 'Concepts'): ConceptParts {
  const titles: string[] = [];
  const keys = new Set<string>();
  const laid = schemes.map(({ title: wanted, concepts }) => {
    const title = freeAmong(wanted, titles);
    titles.push(title);
    const key = freeKeyAmong(addressKey(title, 'concepts'), keys);
    keys.add(key);
    return laidScheme(title, key, concepts, newId);
  });
  if (laid.length === 0) return { parts: noParts, rows: new Map() };
  const sheet = {
    ...{ id: newId(), kind: 'source' as const, title: titles.length === 1 ? titles[0]! : several, note: '', shown: true },
    ...{ limited: false, downloads: true, groups: [], registers: laid.map(({ register }) => register) },
  };
  return {
    parts: { ...noParts, sheets: [sheet], ranges: laid.map(({ range }) => range), catalogs: laid.map(({ catalog }) => catalog) },
    rows: new Map(laid.map(({ register, rows }) => [register.id, rows])),
  };
}

function laidScheme(title: string, key: string, concepts: readonly ReadConcept[], newId: () => string) {
  const depth = concepts.reduce((most, { path }) => Math.max(most, path.length + 1), 1);
  const headings = depth === 1 ? ['Value'] : Array.from({ length: depth }, (_, level) => `Level ${level + 1}`);
  const fields = headings.map((heading, level) => ({
    ...{ key: depth === 1 ? 'value' : `level_${level + 1}`, heading, kind: 'text' as const, width, group: '', rule: null },
  }));
  const register: PartsRegister = { id: newId(), title, closing: null, fields };
  const range: SourceRange = {
    ...{ id: newId(), name: title, shape: depth > 1 ? 'levels' : 'list', inherits: false },
    stretches: [{ registerId: register.id, fields: fields.map((field) => field.key), start: { at: 'top' }, end: { ends: 'last' } }],
  };
  const catalog: PartsCatalog = {
    ...{ id: newId(), key, title, note: '', stewards: [], kept: concepts.flatMap(keptOf) },
    definition: {
      parts: [{ join: 'or', kind: 'range', rangeId: range.id, label: null, companions: [] }],
      filter: null,
      distinct: 'value',
      order: { by: 'kept' },
    },
  };
  const parents = new Set(concepts.map(({ path }) => path.join('\u001F')));
  const rows = concepts
    .map(({ path, value }) => [...path, value])
    // Whatever has others under it stands before them in their rows.
    .filter((levels) => !parents.has(levels.join('\u001F')))
    .map((levels) => Object.fromEntries(levels.map((text, level) => [fields[level]!.key, text])));
  return { register, range, catalog, rows };
}

/** What a value bears beyond itself. */
function keptOf({ value, path, label, otherNames, note, validFrom, validUntil, retired }: ReadConcept): KeptItem[] {
  const more = {
    ...(label !== value && { label }),
    ...(note !== undefined && { note }),
    ...(validFrom !== undefined && { validFrom }),
    ...(validUntil !== undefined && { validUntil }),
  };
  if (!retired && otherNames.length === 0 && Object.keys(more).length === 0) return [];
  return [{ value, path, retired, otherNames, ...more }];
}
