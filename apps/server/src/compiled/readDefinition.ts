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

function catalogIn(build: HouseBuild, { catalogId }: { readonly catalogId: string }): string {
  if (!build.catalogs.has(catalogId)) throw notFound('This catalog');
  return catalogId;
}

function registerIn(build: HouseBuild, { registerId }: { readonly registerId: string }): RegisterBuild {
  const register = build.registers.get(registerId);
  if (!register) throw notFound('This sheet');
  return register;
}

/** What rows of a register give besides the value. */
const alongIn = (
  register: RegisterBuild,
  { label, companions }: { readonly label: string | null; readonly companions: readonly string[] },
) => ({ label: label ? fieldWithKey(register, label).key : null, companions: keysIn(register, companions) });

type PartOf<Kind extends CatalogPart['kind']> = Extract<CatalogPart, { kind: Kind }>;
type DtoOf<Kind extends CatalogPart['kind']> = Extract<PartDto, { kind: Kind }>;

/** What a part of each kind says beyond how it joins those before it. */
const reads: { readonly [Kind in CatalogPart['kind']]: (dto: DtoOf<Kind>, build: HouseBuild) => Omit<PartOf<Kind>, 'kind' | 'join'> } = {
  typed: ({ values }) => ({ values: typedValues(values) }),
  range(dto, build) {
    const range = build.ranges.find(({ id }) => id === dto.rangeId);
    if (!range) throw notFound('A range');
    return { rangeId: range.id, ...alongIn(build.registers.get(range.stretches[0]!.registerId)!, dto) };
  },
  query(dto, build) {
    const register = registerIn(build, dto);
    const filter = filterOf(dto.filter);
    filter?.conditions.forEach(({ field }) => fieldWithKey(register, field));
    return { registerId: register.id, value: fieldWithKey(register, dto.value).key, ...alongIn(register, dto), filter };
  },
  linked({ sourceId }, build) {
    if (!build.linked.some(({ id }) => id === sourceId)) throw notFound('This linked source');
    return { sourceId };
  },
  catalog: (dto, build) => ({ catalogId: catalogIn(build, dto) }),
  named: (dto, build) => ({ catalogId: catalogIn(build, dto) }),
  keyed(dto, build) {
    const catalogId = catalogIn(build, dto);
    const register = registerIn(build, dto);
    const [value, key] = [fieldWithKey(register, dto.value).key, fieldWithKey(register, dto.key).key];
    if (key === value)
      throw new ProblemError('not-valid', 'A value cannot name its own parent. Choose another field.', {
        faults: { parts: 'Choose another field.' },
      });
    return { catalogId, by: dto.by, registerId: register.id, key, value, ...alongIn(register, dto) };
  },
};

function partOf(dto: PartDto, build: HouseBuild): CatalogPart {
  const read = reads[dto.kind] as (dto: PartDto, build: HouseBuild) => object;
  return { kind: dto.kind, join: dto.join, ...read(dto, build) } as CatalogPart;
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
