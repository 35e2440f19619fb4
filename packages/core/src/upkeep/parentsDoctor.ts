// Parents that almost match: entries that name a parent which is not there, and items whose range bears nearly their name.
import { grouped } from '../group.js';
import { parentsBy, partAs, rangeOf } from '../catalogs/parts/index.js';
import { levelsOf, type KeyedPart, type NamedPart } from '../catalogs/index.js';
import { proposalOf, readSourceState, type Proposal, type SourceState, type Step, type SourceStateReader } from '../impact/index.js';
import type { SourceRow } from '../ranges/index.js';
import type { Entry } from '../registers/index.js';
import { clean } from '../text/index.js';
import { lookAlikes } from './lookAlikes.js';

/** Something that would stand under a parent if a name were written right. */
export interface ParentFinding {
  readonly catalogId: string;
  readonly words: string;
  readonly cure: { readonly words: string; readonly proposal: Proposal };
}
/** Rows of a table that name a parent which is not there: nothing offers them. */
export interface Orphans {
  readonly catalogId: string;
  readonly words: string;
  /** Where the first of them stands. */
  readonly row: SourceRow;
}
interface Found {
  readonly words: string;
  readonly cure: string;
  readonly step: Step;
}

/** Which of some names each text is meant to be, where exactly one is so like it; all compared at once. */
function meantBy(texts: readonly string[], names: ReadonlySet<string>): ReadonlyMap<string, string> {
  const groups = lookAlikes([...[...names].map((value) => ({ value, entries: 1 })), ...texts.map((value) => ({ value, entries: 0 }))]);
  return new Map(
    groups.flatMap((group) => {
      const meant = group.filter(({ value }) => names.has(value));
      return meant.length === 1 ? group.filter(({ value }) => !names.has(value)).map(({ value }) => [value, meant[0]!.value] as const) : [];
    }),
  );
}

/** The names by which the parents of a keyed part go. */
const namesOf = ({ catalogId, by }: KeyedPart, reader: SourceStateReader): ReadonlySet<string> =>
  new Set(
    reader
      .items(catalogId)
      .filter(({ state }) => state === 'offered')
      .flatMap(({ value, companions }) => (by === null ? [value] : [clean(companions?.[by] ?? '')]))
      .filter((name) => name !== ''),
  );

/** The rows of a part that name no parent, by the text that names none. */
function lostRows(
  part: KeyedPart,
  reader: SourceStateReader,
): ReadonlyMap<string, readonly { readonly entry: Entry; readonly ordinal: number }[]> {
  const parentOf = parentsBy(part, reader);
  const rows = (reader.register(part.registerId)?.entries ?? []).map((entry, ordinal) => ({ entry, ordinal }));
  const lost = rows.filter(({ entry: { cells } }) => clean(cells[part.key] ?? '') !== '' && parentOf(cells[part.key]!) === undefined);
  return grouped(lost, ({ entry }) => entry.cells[part.key]!);
}

function almostKeyed(part: KeyedPart, reader: SourceStateReader): Found[] {
  const names = namesOf(part, reader);
  const register = reader.register(part.registerId);
  const byText = lostRows(part, reader);
  return [...meantBy([...byText.keys()], names)].map(([text, meant]): Found => {
    const entries = byText.get(text)!;
    const words = `${entries.length === 1 ? 'An entry' : `${entries.length} entries`} of ${register!.heading} ${entries.length === 1 ? 'names' : 'name'} the parent “${text}”, which almost matches “${meant}”.`;
    return {
      words,
      cure: `Write it “${meant}”`,
      step: {
        what: 'act',
        registerId: part.registerId,
        act: { act: 'write', cells: entries.map(({ entry }) => ({ entry: entry.id, field: part.key, text: meant })) },
      },
    };
  });
}

function almostNamed({ catalogId }: NamedPart, sourceState: SourceState, reader: SourceStateReader): Found[] {
  const items = reader.items(catalogId).filter(({ state }) => state === 'offered');
  const parents = items.filter(({ path }) => path.length === levelsOf(items) - 1);
  const taken = new Set(parents.flatMap((item) => rangeOf(item, reader)?.id ?? []));
  const free = new Map(
    sourceState.ranges.filter(({ id, shape }) => shape === 'list' && !taken.has(id)).map((range) => [range.name, range]),
  );
  const bare = parents.filter((item) => !rangeOf(item, reader) && !reader.rangeNamed(item.value)).map(({ value }) => value);
  return [...meantBy(bare, new Set(free.keys()))].map(([value, near]): Found => ({
    words: `Nothing stands under “${value}”: the range “${near}” almost bears its name.`,
    cure: `Name the range “${value}”`,
    step: { what: 'range changed', range: { ...free.get(near)!, name: value } },
  }));
}

/** Rows whose parent does not exist and resembles none, in the parts of one catalog. */
export function orphansOf(catalogId: string, sourceState: SourceState, reader = readSourceState(sourceState)): Orphans[] {
  return (sourceState.definitions.get(catalogId)?.parts ?? []).flatMap((one) => {
    const part = partAs('keyed', one);
    if (!part) return [];
    const byText = lostRows(part, reader);
    const almost = meantBy([...byText.keys()], namesOf(part, reader));
    const heading = reader.register(part.registerId)?.heading ?? '';
    return [...byText].flatMap(([text, rows]): Orphans[] => {
      const [first] = rows;
      if (almost.has(text) || !first) return [];
      const words = `${rows.length === 1 ? 'A row' : `${rows.length} rows`} of ${heading} ${rows.length === 1 ? 'names' : 'name'} “${text}”, which is not there: nothing offers ${rows.length === 1 ? 'it' : 'them'}.`;
      return [{ catalogId, words, row: { register: part.registerId, entry: first.entry.id, ordinal: first.ordinal } }];
    });
  });
}

/** What almost matches in the parts of one catalog that put things under parents. */
export function examineParents(catalogId: string, sourceState: SourceState, reader = readSourceState(sourceState)): ParentFinding[] {
  const found = (sourceState.definitions.get(catalogId)?.parts ?? []).flatMap((part) => {
    const [keyed, named] = [partAs('keyed', part), partAs('named', part)];
    return keyed ? almostKeyed(keyed, reader) : named ? almostNamed(named, sourceState, reader) : [];
  });
  return found.map(({ words, cure, step }) => ({ catalogId, words, cure: { words: cure, proposal: proposalOf(step) } }));
}
