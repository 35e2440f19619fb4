// Which steps in the sources an act on an item of a catalog takes: the catalog page changes its values where they are kept.
import { randomUUID } from 'node:crypto';
import {
  clean,
  compileCatalog,
  endingOf,
  grouped,
  itemKey,
  lookUp,
  parentKeyOf,
  partAs,
  partReads,
  rangeOf,
  readSourceState,
  sourceTextFault,
  type Catalog,
  type CatalogDefinition,
  type Item,
  type KeptItem,
  type KeyedPart,
  type NamedPart,
  type Proposal,
  type SourceRow,
  type SourceState,
  type Step,
  type TypedPart,
  type SourceStateReader,
} from '@dellum/core';
import type { AddItemDto, ItemActDto, ItemDto, KeepItemDto } from '@dellum/contract';
import { notFound, ProblemError } from '../problems/index.js';

/** A catalog with its sources, as one transaction sees them. */
export interface CatalogAt {
  readonly id: string;
  readonly title: string;
  readonly sourceState: SourceState;
  /** The catalog as it is compiled already; left out where the sources have gone on since. */
  readonly compiled?: Catalog;
}

const itemsOf = ({ id, compiled, sourceState }: CatalogAt): readonly Item[] => compiled?.all ?? readSourceState(sourceState).items(id);

const definitionOf = ({ id, sourceState }: CatalogAt): CatalogDefinition => sourceState.definitions.get(id)!;
const at = (item: Pick<Item, 'path' | 'value'>) => itemKey(item);

function fitting(text: string): string {
  const fault = sourceTextFault(text);
  if (fault) throw new ProblemError('value-refused', fault.message, { verdict: fault.code, suggestions: [] });
  const value = clean(text);
  if (value === '') throw new ProblemError('not-valid', 'Type a value; this one is blank.', { faults: { value: 'Type a value.' } });
  return value;
}

function itemOf(catalog: CatalogAt, key: Pick<Item, 'path' | 'value'>): Item {
  const item = itemsOf(catalog).find((known) => at(known) === at(key));
  if (!item) throw notFound(`“${key.value}”`);
  return item;
}

/** The rows that hold an item in ranges and queries, with the field that holds it there. */
function cellsOf(catalog: CatalogAt, item: Item): { row: SourceRow; field: string }[] {
  const definition = definitionOf(catalog);
  return item.from.flatMap(({ by, id, rows }) => {
    if (by === 'query' || by === 'keyed') {
      const fields = definition.parts.map((part) => partReads(part).fields).find((read) => read?.registerId === id);
      return fields ? rows.map((row) => ({ row, field: fields.value })) : [];
    }
    const range = by === 'range' ? catalog.sourceState.ranges.find((known) => known.id === id) : undefined;
    if (!range) return [];
    return rows.map((row) => {
      const { fields } = range.stretches.find(({ registerId }) => registerId === row.register)!;
      return { row, field: range.shape === 'levels' ? fields[item.path.length]! : fields[0]! };
    });
  });
}

/** Values that come from elsewhere can only be changed there. */
function mustBeOurs(item: Item, doing: string): void {
  const foreign = item.from.find(({ by }) => by === 'linked' || by === 'catalog');
  if (foreign)
    throw new ProblemError(
      'in-use',
      `“${item.label}” comes from ${foreign.by === 'linked' ? 'a linked source' : 'another catalog'}; ${doing} it there.`,
      { users: [foreign.by] },
    );
}

const typedPartOf = (definition: CatalogDefinition): TypedPart | undefined =>
  definition.parts.flatMap((part) => partAs('typed', part) ?? [])[0];

/** The definition with other typed values in its first typed part. */
function withTyped(catalog: CatalogAt, change: (values: readonly string[]) => readonly string[]): Step[] {
  const definition = definitionOf(catalog);
  const typed = typedPartOf(definition);
  if (!typed) return [];
  const parts = definition.parts.map((part) => (part === typed ? { ...typed, values: change(typed.values) } : part));
  return [{ what: 'catalog changed', catalogId: catalog.id, definition: { ...definition, parts } }];
}

const isTyped = (item: Item) => item.from.some(({ by }) => by === 'typed');

/** Adds a value where the catalog keeps its values: under the first range that takes it, else among the typed values. */
export function adding(catalog: CatalogAt, dto: AddItemDto): Proposal {
  const value = fitting(dto.value);
  const reader = readSourceState(catalog.sourceState);
  const compiled = () => catalog.compiled ?? compileCatalog(catalog.id, catalog.title, itemsOf(catalog));
  const known = dto.path.length === 0 ? lookUp(compiled(), value) : { found: 'nothing' as const };
  if (known.found === 'item' && known.item.state === 'offered')
    throw new ProblemError(
      'name-taken',
      `${known.item.label === value ? `“${value}” is` : `“${value}” is understood as ${known.item.label}, which is`} in ${catalog.title} already.`,
      { faults: { value: 'It is there already.' } },
    );
  // A catalog that is composed of nothing yet keeps what is typed into it.
  const definition = definitionOf(catalog);
  if (definition.parts.length === 0 && dto.path.length === 0)
    return {
      steps: [
        {
          what: 'catalog changed',
          catalogId: catalog.id,
          definition: { ...definition, parts: [{ kind: 'typed', join: 'or', values: [value] }] },
        },
      ],
    };
  for (const part of definition.parts) {
    if (part.join !== 'or') continue;
    if (partAs('typed', part) && dto.path.length === 0) return { steps: withTyped(catalog, (values) => [...values, value]) };
    const widen = dto.widen === true;
    const [range, under] = [partAs('range', part), partAs('named', part) ?? partAs('keyed', part)];
    const steps = range
      ? underRange(reader, range.rangeId, dto.path, value, widen)
      : under && underParent(reader, under, dto.path, value, widen);
    if (steps) return { steps };
  }
  throw new ProblemError('in-use', `${catalog.title} keeps no values of its own: it takes them from elsewhere. Add the value there.`, {
    users: [],
  });
}

/** The steps that put a value under an item of another catalog: into the range of its name, or as an entry that names it. */
function underParent(
  reader: SourceStateReader,
  part: NamedPart | KeyedPart,
  path: readonly string[],
  value: string,
  widen: boolean,
): Step[] | undefined {
  const parent = reader.items(part.catalogId).find((item) => path.length > 0 && itemKey(item) === path.join('\u001F'));
  if (!parent) return undefined;
  const keyed = partAs('keyed', part);
  if (!keyed) {
    const range = rangeOf(parent, reader);
    return range && underRange(reader, range.id, [], value, widen);
  }
  const key = parentKeyOf(keyed, parent);
  if (key === undefined) return undefined;
  const entries = [{ id: randomUUID(), cells: { [keyed.key]: key, [keyed.value]: value } }];
  return [{ what: 'act', registerId: keyed.registerId, act: { act: 'insert', before: null, entries } }];
}

/** The steps that put a value under a range, or undefined where the range has no such place. */
function underRange(
  reader: SourceStateReader,
  rangeId: string,
  path: readonly string[],
  value: string,
  widen: boolean,
): Step[] | undefined {
  const range = reader.range(rangeId);
  if (!range) return undefined;
  const taking = reader.taking(rangeId);
  const depth = range.shape === 'list' ? 0 : range.shape === 'headings' ? 1 : undefined;
  if (depth !== undefined && depth !== path.length) return undefined;
  const stretch =
    range.shape === 'headings'
      ? range.stretches.find(({ registerId }) => clean(reader.register(registerId)?.heading ?? '') === path[0])
      : range.stretches[0];
  if (!stretch || path.length >= stretch.fields.length + (range.shape === 'headings' ? 1 : 0)) return undefined;
  const register = reader.register(stretch.registerId)!;
  const extent = taking.extents.find(({ registerId }) => registerId === stretch.registerId)!;
  // A group's new child goes under its last one; everything else under the last value.
  const siblings = taking.values
    .filter((known) =>
      path.every((parent, level) => (known.path[level] ?? (known.path.length === level ? known.value : undefined)) === parent),
    )
    .flatMap(({ rows }) => rows);
  const after =
    path.length > 0 && siblings.length > 0
      ? Math.max(...siblings.filter((row) => row.register === register.id).map(({ ordinal }) => ordinal)) + 1
      : extent.beyond;
  const texts = range.shape === 'levels' ? [...path, value] : [value];
  const entry = { id: randomUUID(), cells: Object.fromEntries(texts.map((text, level) => [stretch.fields[level]!, text])) };
  const insert: Step = {
    what: 'act',
    registerId: register.id,
    act: { act: 'insert', before: register.entries[after]?.id ?? null, entries: [entry] },
  };
  if (endingOf(range) !== 'fixed' || after < extent.beyond) return [insert];
  if (!widen) throw new ProblemError('range-fixed', `“${range.name}” ends at a fixed row. Take the new value in all the same?`);
  const widened = {
    ...range,
    stretches: range.stretches.map((known) => (known === stretch ? { ...known, end: { ends: 'fixed' as const, entry: entry.id } } : known)),
  };
  return [insert, { what: 'range changed', range: widened }];
}

function renamed(catalog: CatalogAt, item: Item, to: string): Step[] {
  const cells = cellsOf(catalog, item);
  const writes = [...grouped(cells, ({ row }) => row.register)].map(([registerId, own]): Step => ({
    what: 'act',
    registerId,
    act: { act: 'write', cells: own.map(({ row, field }) => ({ entry: row.entry, field, text: to })) },
  }));
  return [
    ...writes,
    ...(isTyped(item) ? withTyped(catalog, (values) => [...new Set(values.map((value) => (value === item.value ? to : value)))]) : []),
  ];
}

/** Takes a value out of its sources: rows of lists go, cells of tables become blank, typed values are struck. */
function removed(catalog: CatalogAt, item: Item): Step[] {
  const cells = cellsOf(catalog, item);
  const steps = new Map<string, Step>();
  for (const { row, field } of cells) {
    const isList = catalog.sourceState.registers.get(row.register)!.fields.length === 1;
    const known = steps.get(row.register);
    if (known?.what === 'act' && known.act.act === 'delete')
      steps.set(row.register, { ...known, act: { act: 'delete', entries: [...known.act.entries, row.entry] } });
    else if (known?.what === 'act' && known.act.act === 'write')
      steps.set(row.register, { ...known, act: { act: 'write', cells: [...known.act.cells, { entry: row.entry, field, text: '' }] } });
    else
      steps.set(row.register, {
        what: 'act',
        registerId: row.register,
        act: isList ? { act: 'delete', entries: [row.entry] } : { act: 'write', cells: [{ entry: row.entry, field, text: '' }] },
      });
  }
  return [...steps.values(), ...(isTyped(item) ? withTyped(catalog, (values) => values.filter((value) => value !== item.value)) : [])];
}

const keptOf = (catalog: CatalogAt, item: Pick<Item, 'path' | 'value'>): KeptItem =>
  catalog.sourceState.kept.get(catalog.id)?.find((kept) => itemKey(kept) === itemKey(item)) ?? {
    value: item.value,
    path: item.path,
    retired: false,
    otherNames: [],
  };

const keeping = (catalog: CatalogAt, item: KeptItem): Step => ({ what: 'items kept', catalogId: catalog.id, items: [item] });

function moved(catalog: CatalogAt, item: Item, beforeValue: string | undefined): Step[] {
  if (definitionOf(catalog).order.by !== 'kept')
    throw new ProblemError(
      'in-use',
      `${catalog.title} orders its values by itself. Choose “in the order of their sources” to move them by hand.`,
      { users: [] },
    );
  if (isTyped(item)) {
    return withTyped(catalog, (values) => {
      const rest = values.filter((value) => value !== item.value);
      const place = beforeValue === undefined ? -1 : rest.indexOf(beforeValue);
      return place < 0 ? [...rest, item.value] : [...rest.slice(0, place), item.value, ...rest.slice(place)];
    });
  }
  const cells = cellsOf(catalog, item);
  const [first] = cells;
  const target = beforeValue === undefined ? undefined : cellsOf(catalog, itemOf(catalog, { path: item.path, value: beforeValue }))[0];
  if (!first || (target && target.row.register !== first.row.register))
    throw new ProblemError('in-use', 'These values are kept in different places; move them there.', { users: [] });
  const entries = cells.filter(({ row }) => row.register === first.row.register).map(({ row }) => row.entry);
  return [
    {
      what: 'act',
      registerId: first.row.register,
      act: { act: 'move', entries, before: target?.row.entry ?? endOf(catalog, item, first.row) },
    },
  ];
}

/** The entry just under the stretch that holds the item: moved last, it stays inside its range. */
function endOf(catalog: CatalogAt, item: Item, row: SourceRow): string | null {
  const range = item.from.find(({ by }) => by === 'range');
  const extent =
    range &&
    readSourceState(catalog.sourceState)
      .taking(range.id)
      .extents.find(({ registerId }) => registerId === row.register);
  return (extent && catalog.sourceState.registers.get(row.register)!.entries[extent.beyond]?.id) ?? null;
}

/** The proposal for an act on an item. */
export function acting(catalog: CatalogAt, dto: ItemActDto): Proposal {
  const item = itemOf(catalog, dto);
  const needTo = () => fitting(dto.to ?? '');
  switch (dto.act) {
    case 'correct':
    case 'replace': {
      mustBeOurs(item, dto.act);
      const to = needTo();
      if (to === item.value)
        throw new ProblemError('not-valid', 'This is how it is written already.', { faults: { to: 'Type it otherwise.' } });
      return {
        steps: renamed(catalog, item, to),
        meanings: [
          {
            catalogId: catalog.id,
            from: item.value,
            to,
            level: item.path.length,
            answer: dto.act === 'correct' ? 'corrected' : 'replaced',
          },
        ],
      };
    }
    case 'merge': {
      const to = needTo();
      if (to === item.value)
        throw new ProblemError('not-valid', `“${to}” cannot be merged into itself. Choose another value.`, {
          faults: { to: 'Choose another value.' },
        });
      itemOf(catalog, { path: item.path, value: to });
      mustBeOurs(item, 'merge');
      return {
        steps: item.from.length > 0 ? removed(catalog, item) : [keeping(catalog, { ...keptOf(catalog, item), retired: false })],
        meanings: [{ catalogId: catalog.id, from: item.value, to, level: item.path.length, answer: 'corrected' }],
      };
    }
    case 'retire':
      return { steps: [keeping(catalog, { ...keptOf(catalog, item), retired: true })] };
    case 'restore': {
      const kept = keeping(catalog, { ...keptOf(catalog, item), retired: false });
      if (item.from.length > 0) return { steps: [kept] };
      return {
        steps: [
          kept,
          ...adding(
            { ...catalog, sourceState: { ...catalog.sourceState, kept: new Map([...catalog.sourceState.kept, [catalog.id, []]]) } },
            { path: dto.path, value: item.value, widen: true },
          ).steps,
        ],
      };
    }
    case 'remove':
      mustBeOurs(item, 'remove');
      return { steps: item.from.length > 0 ? removed(catalog, item) : [keeping(catalog, { ...keptOf(catalog, item), retired: false })] };
    case 'move':
      mustBeOurs(item, 'move');
      return { steps: moved(catalog, item, dto.before) };
  }
}

/** Keeps one more name of an item; one that it has already changes nothing. */
export function namingToo(catalog: CatalogAt, dto: ItemDto, name: string): Proposal {
  const item = itemOf(catalog, dto);
  const also = clean(name);
  mustBeFree(catalog, item, [also]);
  const kept = keptOf(catalog, item);
  return also === '' || also === item.value
    ? { steps: [] }
    : { steps: [keeping(catalog, { ...kept, otherNames: [...new Set([...kept.otherNames, also])] })] };
}

/** No name of an item may mean another one. */
function mustBeFree(catalog: CatalogAt, item: ReturnType<typeof itemOf>, names: readonly string[]): void {
  const others = itemsOf(catalog).filter((known) => at(known) !== at(item));
  const taken = names.find((name) => others.some((other) => other.value === name || other.otherNames.includes(name)));
  if (taken === undefined) return;
  const words = `“${taken}” means another value already. Take it away there first.`;
  throw new ProblemError('name-taken', words, { faults: { otherNames: words } });
}

/** Keeps label, note, colour, validity and other names of an item by hand. */
export function keepingByHand(catalog: CatalogAt, dto: KeepItemDto): Proposal {
  const item = itemOf(catalog, dto);
  if (dto.validFrom && dto.validUntil && dto.validFrom > dto.validUntil) {
    const words = 'The last day lies before the first. Swap them.';
    throw new ProblemError('not-valid', words, { faults: { validUntil: words } });
  }
  const otherNames = [...new Set(dto.otherNames.map(clean))].filter((name) => name !== '' && name !== item.value);
  mustBeFree(catalog, item, otherNames);
  const kept = keptOf(catalog, item);
  const label = clean(dto.label ?? '');
  const note = clean(dto.note ?? '');
  const next: KeptItem = {
    value: kept.value,
    path: kept.path,
    retired: kept.retired,
    otherNames,
    ...(label !== '' && { label }),
    ...(note !== '' && { note }),
    ...(dto.colour && { colour: dto.colour }),
    ...(dto.validFrom && { validFrom: dto.validFrom }),
    ...(dto.validUntil && { validUntil: dto.validUntil }),
  };
  return { steps: [keeping(catalog, next)] };
}
