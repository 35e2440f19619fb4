// The sources of a house as the computation sees them, and what they are after a proposal.
import {
  composeCatalog,
  companionsOf,
  itemKey,
  partReads,
  type CatalogDefinition,
  type CompanionField,
  type Item,
  type KeptItem,
  type LinkedRow,
  type PartReads,
  type PartSources,
} from '../catalogs/index.js';
import { followAct, liesOver, takeRange, type RangeTaking, type SourceRange } from '../ranges/index.js';
import { applyAct, inverseOf, type Act, type RegisterId, type RegisterState } from '../registers/index.js';
import { matchKey } from '../text/index.js';
import type { Locale } from '../values/index.js';
import type { Answer } from './impact.js';

/** As much of the sources as a question needs: registers and catalogs that are not there count as empty. */
export interface SourceState {
  readonly locale: Locale;
  readonly registers: ReadonlyMap<RegisterId, RegisterState>;
  readonly ranges: readonly SourceRange[];
  readonly definitions: ReadonlyMap<string, CatalogDefinition>;
  readonly kept: ReadonlyMap<string, readonly KeptItem[]>;
  readonly linked: ReadonlyMap<string, readonly LinkedRow[]>;
}

/** One change of the sources. */
export type Step =
  | { readonly what: 'act'; readonly registerId: RegisterId; readonly act: Act }
  | { readonly what: 'heading changed'; readonly registerId: RegisterId; readonly heading: string }
  | { readonly what: 'range made' | 'range changed' | 'range deleted'; readonly range: SourceRange }
  | { readonly what: 'catalog changed'; readonly catalogId: string; readonly definition: CatalogDefinition }
  | { readonly what: 'items kept'; readonly catalogId: string; readonly items: readonly KeptItem[] }
  | { readonly what: 'linked read'; readonly sourceId: string; readonly rows: readonly LinkedRow[] };

/** What somebody means by a change of a value, where the change itself does not say it. */
export interface Meaning {
  readonly catalogId: string;
  readonly from: string;
  readonly to: string;
  /** The level on which it stands, counted from 0; any where it is left out. */
  readonly level?: number;
  readonly answer: Answer;
}

/** What is asked for: some steps that are done together or not at all. */
export interface Proposal {
  readonly steps: readonly Step[];
  readonly meanings?: readonly Meaning[];
  /** The act that it goes on with; both are taken back as one. */
  readonly joins?: number;
  /** Set when it takes back, or does again, an act that was done before. */
  readonly again?: { readonly act: number; readonly as: 'undone' | 'done' };
}

export const proposalOf = (...steps: readonly Step[]): Proposal => ({ steps });

function withKept(kept: readonly KeptItem[], items: readonly KeptItem[]): KeptItem[] {
  const changed = new Map(items.map((item) => [itemKey(item), item]));
  const stays = kept.map((item) => changed.get(itemKey(item)) ?? item);
  const known = new Set(kept.map(itemKey));
  return [...stays, ...items.filter((item) => !known.has(itemKey(item)))];
}

const set = <K, V>(map: ReadonlyMap<K, V>, key: K, value: V): ReadonlyMap<K, V> => new Map([...map, [key, value]]);

/** The sources after one step. */
export function afterStep(sourceState: SourceState, step: Step): SourceState {
  const { registers, ranges, definitions, kept, linked, locale } = sourceState;
  switch (step.what) {
    case 'act': {
      const register = registers.get(step.registerId);
      if (!register) return sourceState;
      const over = ranges.filter((range) => liesOver(range, step.registerId));
      const entries = applyAct(register.entries, step.act, locale.language);
      return {
        ...sourceState,
        registers: set(registers, register.id, { ...register, entries }),
        ranges: ranges.map((range) => followAct(range, register.id, register.entries, over, step.act, locale.language)),
      };
    }
    case 'heading changed': {
      const register = registers.get(step.registerId);
      return register ? { ...sourceState, registers: set(registers, register.id, { ...register, heading: step.heading }) } : sourceState;
    }
    case 'range made':
      return { ...sourceState, ranges: [...ranges, step.range] };
    case 'range changed':
      return { ...sourceState, ranges: ranges.map((range) => (range.id === step.range.id ? step.range : range)) };
    case 'range deleted':
      return { ...sourceState, ranges: ranges.filter(({ id }) => id !== step.range.id) };
    case 'catalog changed':
      return { ...sourceState, definitions: set(definitions, step.catalogId, step.definition) };
    case 'items kept':
      return { ...sourceState, kept: set(kept, step.catalogId, withKept(kept.get(step.catalogId) ?? [], step.items)) };
    case 'linked read':
      return { ...sourceState, linked: set(linked, step.sourceId, step.rows) };
  }
}

export const afterProposal = (sourceState: SourceState, { steps }: Proposal): SourceState => steps.reduce(afterStep, sourceState);

const asKept = (key: Pick<KeptItem, 'value' | 'path'>): KeptItem => ({ value: key.value, path: key.path, retired: false, otherNames: [] });

/** What takes one step back, computed before it is done. */
function stepBack(sourceState: SourceState, step: Step): Step[] {
  switch (step.what) {
    case 'act':
      return inverseOf(sourceState.registers.get(step.registerId)?.entries ?? [], step.act).map((act) => ({
        what: 'act',
        registerId: step.registerId,
        act,
      }));
    case 'heading changed':
      return [{ ...step, heading: sourceState.registers.get(step.registerId)?.heading ?? step.heading }];
    case 'range made':
      return [{ what: 'range deleted', range: step.range }];
    case 'range deleted':
      return [{ what: 'range made', range: sourceState.ranges.find(({ id }) => id === step.range.id) ?? step.range }];
    case 'range changed':
      return sourceState.ranges.filter(({ id }) => id === step.range.id).map((range) => ({ what: 'range changed', range }));
    case 'catalog changed': {
      const definition = sourceState.definitions.get(step.catalogId);
      return definition ? [{ ...step, definition }] : [];
    }
    case 'items kept': {
      const kept = new Map((sourceState.kept.get(step.catalogId) ?? []).map((item) => [itemKey(item), item]));
      return [{ ...step, items: step.items.map((item) => kept.get(itemKey(item)) ?? asKept(item)) }];
    }
    case 'linked read':
      return [{ ...step, rows: sourceState.linked.get(step.sourceId) ?? [] }];
  }
}

/** What brings the sources back from after a proposal to what it is now: the steps in reverse order, then the anchors of ranges. */
export function takenBack(sourceState: SourceState, { steps }: Proposal): Step[] {
  let at = sourceState;
  const back: Step[] = [];
  for (const step of steps) {
    back.unshift(...stepBack(at, step));
    at = afterStep(at, step);
  }
  const now = new Map(at.ranges.map((range) => [range.id, range]));
  const moved = sourceState.ranges.filter((range) => now.get(range.id) !== range);
  return [...back, ...moved.map((range): Step => ({ what: 'range changed', range }))];
}

const noTaking: RangeTaking = { values: [], leftOut: [], extents: [], grows: false };

export interface SourceStateReader extends PartSources {
  companions(catalogId: string): readonly CompanionField[];
}

/**
 * Reads the state of the sources; each range is taken and each catalog composed once. A catalog within itself counts as empty there.
 * `taken`: what is known already of this state, by range.
 */
export function readSourceState(sourceState: SourceState, taken: ReadonlyMap<string, RangeTaking> = new Map()): SourceStateReader {
  const takings = new Map(taken);
  const composed = new Map<string, readonly Item[]>();
  const ranges = new Map(sourceState.ranges.map((range) => [range.id, range]));
  let named: ReadonlyMap<string, SourceRange> | undefined;
  const names = () => (named ??= new Map(sourceState.ranges.map((range) => [matchKey(range.name), range])));
  const reader: SourceStateReader = {
    locale: sourceState.locale,
    register: (id) => sourceState.registers.get(id),
    range: (id) => ranges.get(id),
    rangeNamed: (name) => names().get(matchKey(name)),
    linked: (id) => sourceState.linked.get(id) ?? [],
    taking(id) {
      const known = takings.get(id);
      if (known) return known;
      const range = ranges.get(id);
      const taking = range ? takeRange(range, sourceState.registers, sourceState.ranges) : noTaking;
      takings.set(id, taking);
      return taking;
    },
    items(id) {
      const known = composed.get(id);
      if (known) return known;
      composed.set(id, []);
      const definition = sourceState.definitions.get(id);
      const items = definition ? composeCatalog(definition, sourceState.kept.get(id) ?? [], reader) : [];
      composed.set(id, items);
      return items;
    },
    companions: (id) => {
      const definition = sourceState.definitions.get(id);
      return definition ? companionsOf(definition, reader, (other) => (other === id ? [] : reader.companions(other))) : [];
    },
  };
  return reader;
}

/** The catalogs that a step touches by themselves; those composed of them follow. */
export function touchedBy(sourceState: SourceState, step: Step): string[] {
  if (step.what === 'catalog changed' || step.what === 'items kept') return [step.catalogId];
  const reading = (test: (reads: PartReads) => boolean) =>
    [...sourceState.definitions].filter(([, { parts }]) => parts.some((part) => test(partReads(part)))).map(([id]) => id);
  if (step.what === 'linked read') return reading(({ linked }) => linked?.includes(step.sourceId) === true);
  if (step.what === 'act' || step.what === 'heading changed') {
    const over = new Set(sourceState.ranges.filter((range) => liesOver(range, step.registerId)).map(({ id }) => id));
    return reading(
      ({ ranges, anyRange, registers }) =>
        (over.size > 0 && anyRange) || ranges?.some((id) => over.has(id)) || registers?.includes(step.registerId) === true,
    );
  }
  // A range that comes, goes or moves may bound its neighbours.
  const registers = new Set(
    [...step.range.stretches, ...(sourceState.ranges.find(({ id }) => id === step.range.id)?.stretches ?? [])].map(
      ({ registerId }) => registerId,
    ),
  );
  const near = new Set(
    sourceState.ranges
      .filter((range) => range.id === step.range.id || range.stretches.some(({ registerId }) => registers.has(registerId)))
      .map(({ id }) => id),
  );
  return reading(({ ranges, anyRange }) => anyRange || ranges?.some((id) => near.has(id)) === true);
}
