// What catalogs depend on, and the cycles that are refused.
import type { CatalogDefinition } from './models.js';
import { partAs, partReads, type CatalogPart } from './parts/index.js';

/** The catalogs behind one catalog: those it is composed of, and those that fill the fields which its queries read. */
type Behind = (catalogId: string) => readonly string[];

/**
 * `bound` says to which catalog a field of a register is bound: a query over such a field takes what that catalog lets
 * in, and so depends on it. `over` says over which catalogs a linked source is computed.
 */
export function behindOf(
  definitions: ReadonlyMap<string, CatalogDefinition>,
  bound: (registerId: string, field: string) => string | undefined,
  over: (sourceId: string) => readonly string[] = () => [],
): Behind {
  const behind = (part: CatalogPart): readonly string[] => {
    const { catalogs = [], linked = [], fields } = partReads(part);
    const catalog = fields && bound(fields.registerId, fields.value);
    return [...catalogs, ...linked.flatMap(over), ...(catalog === undefined ? [] : [catalog])];
  };
  return (id) => definitions.get(id)?.parts.flatMap(behind) ?? [];
}

/** The way from a catalog back to itself, or undefined: `[a, b, a]` when a depends on b and b on a. */
export function cycleThrough(id: string, behind: Behind): string[] | undefined {
  const visited = new Set<string>();
  const walk = (at: string, way: readonly string[]): string[] | undefined => {
    for (const next of behind(at)) {
      if (next === id) return [...way, next];
      if (visited.has(next)) continue;
      visited.add(next);
      const found = walk(next, [...way, next]);
      if (found) return found;
    }
    return undefined;
  };
  return walk(id, [id]);
}

/** The catalogs that depend on one, directly or through others, and the catalog itself; each after all it depends on. */
export function dependents(ids: Iterable<string>, definitions: ReadonlyMap<string, CatalogDefinition>): string[] {
  const users = new Map<string, string[]>();
  for (const [user, { parts }] of definitions) {
    for (const used of parts.flatMap((part) => partReads(part).catalogs ?? [])) users.set(used, [...(users.get(used) ?? []), user]);
  }
  const done = new Set<string>();
  const order: string[] = [];
  const visit = (id: string) => {
    if (done.has(id)) return;
    done.add(id);
    for (const user of users.get(id) ?? []) visit(user);
    order.unshift(id);
  };
  for (const id of ids) visit(id);
  return order;
}

/** The registers from which catalogs are read as a whole. */
export const feedingRegisters = (definitions: Iterable<CatalogDefinition>): string[] =>
  [...definitions].flatMap(({ parts }) => parts.flatMap((part) => partReads(part).registers ?? []));

/** True when a part of the catalog reads this range, register or linked source itself. */
export function readsDirectly(definition: CatalogDefinition, what: 'ranges' | 'registers' | 'linked', id: string): boolean {
  return definition.parts.some((part) => partReads(part)[what]?.includes(id));
}

/** The catalogs by whose items ranges are named. */
export const namingCatalogs = (definitions: Iterable<CatalogDefinition>): string[] =>
  [...definitions].flatMap(({ parts }) => parts.flatMap((part) => partAs('named', part)?.catalogId ?? []));

/** Whether a part of the catalog puts something under the items of another one. */
export const hasParents = ({ parts }: CatalogDefinition): boolean => parts.some((part) => partReads(part).parents !== undefined);

/** The ranges that feed a catalog directly. */
export const rangesOf = ({ parts }: CatalogDefinition): string[] => parts.flatMap((part) => partReads(part).ranges ?? []);

/** A catalog of ranges, as they come. */
export const ofRanges = (rangeIds: readonly string[]): CatalogDefinition => ({
  parts: rangeIds.map((rangeId) => ({ kind: 'range', join: 'or', rangeId, label: null, companions: [] })),
  filter: null,
  distinct: 'value',
  order: { by: 'kept' },
});
