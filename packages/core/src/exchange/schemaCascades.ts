// Fields of a JSON Schema (draft 2020-12) whose values depend on what another one holds, as levels of one list: said by `if` and `then`, or
// by one choice for each value of the other.
import { grouped } from '../group.js';
import { isObject, objectsIn, offeredIn, type Members } from './schemaMembers.js';

/** Fields by their names, the outermost first, and the values that may stand in them beside one another. */
export interface Cascade {
  readonly chain: readonly string[];
  /** Each parent before its children: its own parents, then itself. */
  readonly paths: readonly (readonly string[])[];
  /** By field, how many values of those above it say nothing of it, so that anything is taken there. */
  readonly unsaid: ReadonlyMap<string, number>;
}

/** A catalog has so many levels at most. */
const mostLevels = 8;
const mostPaths = 200_000;

/** What a field may hold where others hold these values. */
interface Under {
  readonly child: string;
  readonly parents: readonly string[];
  readonly path: readonly string[];
  readonly values: readonly string[];
}
/** What a field may hold by what others hold. */
interface Dependent {
  readonly parents: readonly string[];
  readonly values: ReadonlyMap<string, readonly string[]>;
}

const keyOf = (path: readonly string[]): string => JSON.stringify(path);

export interface FoundCascades {
  readonly cascades: readonly Cascade[];
  /** The fields of which something is said by what others hold. */
  readonly dependent: ReadonlySet<string>;
}

/** `own`: the values that fields name by themselves. */
export function cascadesIn(schema: Members, own: ReadonlyMap<string, readonly string[]>): FoundCascades {
  const dependents = new Map<string, Dependent>();
  const unders = grouped(undersIn(schema), (under) => under.child);
  for (const [child, all] of unders) {
    const { parents } = all[0]!;
    // What depends on other fields besides is said there alone.
    const same = all.filter((under) => keyOf(under.parents) === keyOf(parents));
    if (own.has(child) && parents.every((name) => own.has(name)))
      dependents.set(child, { parents, values: new Map(same.map(({ path, values }) => [keyOf(path), values])) });
  }
  const chains = [...dependents.keys()].flatMap((name) => {
    const chain = chainOf(name, dependents);
    return chain ? [chain] : [];
  });
  const cascades = chains
    .filter((chain) => !chains.some((other) => other.length > chain.length && chain.every((name, at) => other[at] === name)))
    .flatMap((chain) => {
      const found = pathsOf(chain, dependents, own);
      return found ? [{ chain, ...found }] : [];
    });
  return { cascades, dependent: new Set(unders.keys()) };
}

/** Undefined where fields depend on one another in a circle, too deep, or not in a row. */
function chainOf(name: string, dependents: ReadonlyMap<string, Dependent>): string[] | undefined {
  const chain = [name];
  for (let dependent = dependents.get(name); dependent; dependent = dependents.get(chain[0]!)) {
    const parent = dependent.parents.at(-1)!;
    if (chain.includes(parent) || chain.length >= mostLevels) return undefined;
    chain.unshift(parent);
  }
  const isInRow = chain.every((one, at) => (dependents.get(one)?.parents ?? []).every((parent) => chain.indexOf(parent) < at));
  return isInRow ? chain : undefined;
}

function pathsOf(
  chain: readonly string[],
  dependents: ReadonlyMap<string, Dependent>,
  own: ReadonlyMap<string, readonly string[]>,
): Omit<Cascade, 'chain'> | undefined {
  const [first] = chain;
  const begun = new Set(own.get(first!));
  // Values that are named as parents alone.
  for (const key of dependents.get(chain[1]!)!.values.keys()) begun.add((JSON.parse(key) as string[])[0]!);
  let level = [...begun].map((value) => [value]);
  const all = [...level];
  const unsaid = new Map<string, number>();
  for (const name of chain.slice(1)) {
    const { parents, values } = dependents.get(name)!;
    const below: string[][] = [];
    for (const path of level) {
      // Where no condition holds, what it names by itself is taken; all, where it names nothing.
      const under = values.get(keyOf(parents.map((parent) => path[chain.indexOf(parent)]!)));
      const said = under ?? own.get(name)!;
      if (!under && said.length === 0) unsaid.set(name, (unsaid.get(name) ?? 0) + 1);
      for (const value of said) {
        if (all.length + below.length >= mostPaths) return undefined;
        below.push([...path, value]);
      }
    }
    level = below;
    for (const path of level) all.push(path);
  }
  return { paths: all, unsaid };
}

function undersIn(schema: Members): Under[] {
  const dependent = isObject(schema['dependentSchemas']) ? Object.entries(schema['dependentSchemas']) : [];
  const own = dependent.flatMap(([name, held]) => (isObject(held) ? [[name, held] as const] : []));
  return [
    ...[schema, ...own.map(([, held]) => held)].flatMap((one) => [one, ...objectsIn(one['allOf'])].flatMap(undersIf)),
    ...own.flatMap(([name, { oneOf }]) => objectsIn(oneOf).flatMap((choice) => undersOfChoice(name, choice))),
  ];
}

/** What is said by `if` and `then`, where each condition is that a field holds one value. */
function undersIf({ if: when, then }: Members): Under[] {
  const conditions = propertiesIn(when).map(([name, said]) => ({ name, values: valuesIn(said) }));
  if (conditions.length === 0 || conditions.some(({ values }) => values.length !== 1)) return [];
  return undersOf(
    conditions.map(({ name }) => name),
    conditions.map(({ values }) => values[0]!),
    then,
  );
}

/** A choice for some values of a field. */
function undersOfChoice(parent: string, choice: Members): Under[] {
  const held = propertiesIn(choice).find(([name]) => name === parent);
  return held ? valuesIn(held[1]).flatMap((value) => undersOf([parent], [value], choice)) : [];
}

const undersOf = (parents: readonly string[], path: readonly string[], allowed: unknown): Under[] =>
  Object.entries(isObject(allowed) && isObject(allowed['properties']) ? allowed['properties'] : {}).flatMap(([child, said]) => {
    const values = isObject(said) ? valuesIn(isObject(said['items']) ? said['items'] : said) : [];
    // Nothing at all is said by `false`.
    return parents.includes(child) || (values.length === 0 && said !== false) ? [] : [{ child, parents, path, values }];
  });

const valuesIn = (said: Members): string[] => offeredIn(said)?.values.map(({ value }) => value) ?? [];

const propertiesIn = (held: unknown): (readonly [string, Members])[] =>
  isObject(held) && isObject(held['properties'])
    ? Object.entries(held['properties']).flatMap(([name, said]) => (isObject(said) ? [[name, said] as const] : []))
    : [];
