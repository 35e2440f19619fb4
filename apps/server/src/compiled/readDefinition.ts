// From the definition of a catalog as it came over HTTP to the one that the core knows; everything it names must be there.
import {
  behindOf,
  catalogIdOf,
  clean,
  cycleThrough,
  sourceTextFault,
  type CatalogDefinition,
  type CatalogOrder,
  type CatalogPart,
  type Filter,
} from '@dellum/core';
import type { DefinitionDto, FilterDto, OrderDto, PartDto } from '@dellum/contract';
import { fieldWithKey } from '../structure/structure.service.js';
import type { HouseBuild, RegisterBuild } from '../structure/structure.store.js';
import { notFound, ProblemError } from '../problems/index.js';

function needed<T>(value: T | undefined, words: string): T {
  if (value === undefined) throw new ProblemError('not-valid', words, { faults: { parts: words } });
  return value;
}

function filterOf(dto: FilterDto | null | undefined): Filter | null {
  if (!dto || dto.conditions.length === 0) return null;
  return { all: dto.all, conditions: dto.conditions.map(({ field, is, value }) => ({ field, is, value })) };
}

const keysIn = (register: RegisterBuild, keys: readonly string[]): string[] =>
  [...new Set(keys)].map((key) => fieldWithKey(register, key).key);

function typedValues(values: readonly string[]): string[] {
  for (const value of values) {
    const fault = sourceTextFault(value);
    if (fault) throw new ProblemError('value-refused', fault.message, { verdict: fault.code, suggestions: [] });
  }
  return [...new Set(values.map(clean).filter((value) => value !== ''))];
}

function catalogOf({ catalogId }: PartDto, build: HouseBuild, words: string): string {
  if (!build.catalogs.has(needed(catalogId, words))) throw notFound('This catalog');
  return catalogId!;
}

function registerOf({ registerId }: PartDto, build: HouseBuild): RegisterBuild {
  const register = build.registers.get(needed(registerId, 'Choose the sheet or list of this part.'));
  if (!register) throw notFound('This sheet');
  return register;
}

function partOf(dto: PartDto, build: HouseBuild): CatalogPart {
  const { kind, join } = dto;
  switch (kind) {
    case 'typed':
      return { kind, join, values: typedValues(needed(dto.values, 'Type the values of this part.')) };
    case 'range': {
      const range = build.ranges.find(({ id }) => id === needed(dto.rangeId, 'Choose the range of this part.'));
      if (!range) throw notFound('A range');
      const register = build.registers.get(range.stretches[0]!.registerId)!;
      return {
        kind,
        join,
        rangeId: range.id,
        label: dto.label ? fieldWithKey(register, dto.label).key : null,
        companions: keysIn(register, dto.companions ?? []),
      };
    }
    case 'query': {
      const register = registerOf(dto, build);
      const filter = filterOf(dto.filter);
      filter?.conditions.forEach(({ field }) => fieldWithKey(register, field));
      const value = fieldWithKey(register, needed(dto.value, 'Choose the field that gives the value.')).key;
      return {
        kind,
        join,
        registerId: register.id,
        value,
        label: dto.label ? fieldWithKey(register, dto.label).key : null,
        companions: keysIn(register, dto.companions ?? []),
        filter,
      };
    }
    case 'linked': {
      const sourceId = needed(dto.sourceId, 'Choose the linked source of this part.');
      if (!build.linked.some(({ id }) => id === sourceId)) throw notFound('This linked source');
      return { kind, join, sourceId };
    }
    case 'catalog':
      return { kind, join, catalogId: catalogOf(dto, build, 'Choose the catalog of this part.') };
    case 'keyed': {
      const catalogId = catalogOf(dto, build, 'Choose the catalog that gives the parents.');
      const register = registerOf(dto, build);
      const keyIn = (key: string | undefined, words: string) => fieldWithKey(register, needed(key, words)).key;
      const value = keyIn(dto.value, 'Choose the field that gives the value.');
      const key = keyIn(dto.key, 'Choose the field that names the parent.');
      if (key === value)
        throw new ProblemError('not-valid', 'A value cannot name its own parent. Choose another field.', {
          faults: { parts: 'Choose another field.' },
        });
      return {
        kind,
        join,
        catalogId,
        by: dto.by ?? null,
        registerId: register.id,
        key,
        value,
        label: dto.label ? fieldWithKey(register, dto.label).key : null,
        companions: keysIn(register, dto.companions ?? []),
      };
    }
    case 'named':
      return { kind, join, catalogId: catalogOf(dto, build, 'Choose the catalog that gives the parents.') };
  }
}

const orderOf = ({ by, field, direction = 'up' }: OrderDto): CatalogOrder => {
  if (by === 'companion') return { by, field: needed(field, 'Choose the companion that orders the values.'), direction };
  // What is used most is counted by whoever stores or tries the definition.
  return by === 'used' ? { by, first: [] } : { by };
};

/** Checks the definition and reads it. Throws the problem that says what is missing. */
export function readDefinition(dto: DefinitionDto, build: HouseBuild): CatalogDefinition {
  return {
    parts: dto.parts.map((part) => partOf(part, build)),
    filter: filterOf(dto.filter),
    distinct: dto.distinct,
    order: orderOf(dto.order),
  };
}

/** Which catalogs stand behind each catalog; `computed` says over which catalogs a linked source is computed. */
function behindIn(
  build: HouseBuild,
  definitions: ReadonlyMap<string, CatalogDefinition>,
  computed: ReadonlyMap<string, readonly string[]>,
) {
  const bound = (registerId: string, key: string) =>
    catalogIdOf(build.registers.get(registerId)?.fields.find((field) => field.key === key)?.rule);
  return behindOf(definitions, bound, (sourceId) => computed.get(sourceId) ?? []);
}

function computedOver(build: HouseBuild): Map<string, readonly string[]> {
  const byKey = new Map([...build.catalogs.values()].map(({ key, id }) => [key, id]));
  return new Map(build.linked.map(({ id, catalogs }) => [id, catalogs.flatMap((key) => byKey.get(key) ?? [])]));
}

function refuse(build: HouseBuild, cycle: readonly string[] | undefined): void {
  if (!cycle) return;
  const names = cycle.map((at) => build.catalogs.get(at)?.title ?? 'this catalog');
  throw new ProblemError('cycle', `The catalog would feed itself: ${names.join(' takes from ')}. Leave one of these parts out.`, {
    users: names,
  });
}

/** Refuses a definition through which a catalog would feed itself, and names the way. */
export function mustNotCycle(build: HouseBuild, id: string, definition: CatalogDefinition): void {
  const definitions = new Map([...build.catalogs].map(([known, catalog]) => [known, catalog.definition]));
  definitions.set(id, definition);
  refuse(build, cycleThrough(id, behindIn(build, definitions, computedOver(build))));
}

/** Refuses a computed source through which one of the catalogs that it is over would feed itself. */
export function mustNotCycleThrough(build: HouseBuild, sourceId: string, over: readonly string[]): void {
  const definitions = new Map([...build.catalogs].map(([known, catalog]) => [known, catalog.definition]));
  const behind = behindIn(build, definitions, computedOver(build).set(sourceId, over));
  for (const id of over) refuse(build, cycleThrough(id, behind));
}
