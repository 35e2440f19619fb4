// What the levels of a catalog are called, and which of them a field most likely wants.
import { catalogIdOf, matchKey, newRule, partAs, ruleAs, type CatalogRule, type Rule } from '@dellum/core';
import type { BuildView } from '@dellum/contract';
import type { RulePlace } from './rulePlace.js';

/** What the two levels of lists under headings are called. */
const listsUnderHeadings = ['heading', 'value under it'];

/** Whether the names of levels are headings of their own, so that fields can be headed like them. */
export const isNamed = (names: readonly string[]): boolean => names !== listsUnderHeadings;

/**
 * The names of a catalog's levels, outermost first: the headings of the fields its range reads; for lists under headings what the two are.
 * None where it has one level.
 */
export function levelNames(build: BuildView, catalogId: string): readonly string[] {
  const parts = build.catalogs.find(({ id }) => id === catalogId)?.definition.parts ?? [];
  const keyed = parts.flatMap((part) => partAs('keyed', part) ?? [])[0];
  if (keyed) {
    const above = levelNames(build, keyed.catalogId);
    const parents = build.catalogs.find(({ id }) => id === keyed.catalogId)?.title ?? '';
    const fields = build.sheets.flatMap(({ registers }) => registers).find(({ id }) => id === keyed.registerId)?.fields;
    const headingOf = (key: string) => fields?.find((field) => field.key === key)?.heading;
    // What names the parent is what a parent is called; the shown field is what its entries are.
    return [...(above.length > 0 ? above : [headingOf(keyed.key) ?? parents]), headingOf(keyed.label ?? keyed.value) ?? 'value under it'];
  }
  const named = parts.flatMap((part) => partAs('range', part) ?? [])[0];
  const range = named && build.ranges.find(({ id }) => id === named.rangeId);
  const stretch = range?.stretches[0];
  if (range?.shape === 'headings') return listsUnderHeadings;
  if (!range || !stretch || range.shape !== 'levels' || stretch.fields.length < 2) return [];
  const register = build.sheets.flatMap(({ registers }) => registers).find(({ id }) => id === stretch.registerId);
  return stretch.fields.map((key) => register?.fields.find((field) => field.key === key)?.heading ?? key);
}

/** How many letters two words begin with in common. */
function shared(a: string, b: string): number {
  let at = 0;
  while (at < a.length && a[at] === b[at]) at++;
  return at;
}

/** So many letters in common are good grounds, when they are most of the shorter word. */
const leastShared = 4;

/** Endings that make many of one: sellers, boxes, Listen, Felder. */
const manyEndings = new Set(['s', 'es', 'n', 'en', 'e', 'er']);

/** Whether two names are one and many of the same: "Seller" and "Sellers", "category" and "categories". */
function oneAndMany(a: string, b: string): boolean {
  const [own, other] = [a.split(' '), b.split(' ')];
  const alike = (one: string, two: string) => {
    const [short, long] = one.length <= two.length ? [one, two] : [two, one];
    if (short === long || (short.length > 2 && short.endsWith('y') && long === `${short.slice(0, -1)}ies`)) return true;
    return short.length > 2 && long.startsWith(short) && manyEndings.has(long.slice(short.length));
  };
  return own.length === other.length && own.every((word, at) => alike(word, other[at]!));
}

/** How well a name fits a heading, from 0 (not at all) to 1 (the same words). */
export function likeness(name: string, heading: string): number {
  const [own, other] = [matchKey(name), matchKey(heading)];
  if (own === other) return 1;
  if (oneAndMany(own, other)) return 0.95;
  const pairs = own.split(' ').flatMap((word) => other.split(' ').map((one) => [word, one] as const));
  const fit = pairs.map(([a, b]) => {
    const common = shared(a, b);
    const shorter = Math.min(a.length, b.length);
    return common === shorter && common >= 3 ? 0.8 : common >= leastShared && common / shorter >= 0.7 ? 0.6 : 0;
  });
  return Math.max(0, ...fit);
}

/** The best of some by its likeness; undefined where none is like it. */
function best<T>(all: readonly T[], of: (one: T) => number): T | undefined {
  return all.reduce<T | undefined>((found, one) => (of(one) > (found === undefined ? 0 : of(found)) ? one : found), undefined);
}

/** The catalog that a field likely wants: one whose title, or the name of a level, is like its heading. None on weak grounds. */
export const likelyCatalog = (build: BuildView, heading: string): string | undefined =>
  best(build.catalogs, ({ id, title }) =>
    Math.max(likeness(title, heading), ...levelNames(build, id).map((name) => likeness(name, heading))),
  )?.id;

/** The rule that takes the values of a catalog: of the level that the heading names, under the fields that hold the levels above. */
export function catalogRuleFor(catalogId: string, { build, register, field }: RulePlace, before: Rule | null): CatalogRule {
  const rule = { ...newRule('catalog', before ?? undefined), catalogId };
  const names = levelNames(build, catalogId);
  if (names.length === 0) return rule;
  const others = register.fields.filter(({ key }) => key !== field.key);
  const holds = (level: number): string | undefined =>
    others.find(({ rule: other }) => catalogIdOf(other) === catalogId && (ruleAs('catalog', other)!.level ?? names.length - 1) === level)
      ?.key ?? best(others, ({ heading }) => (likeness(names[level]!, heading) === 1 ? 1 : 0))?.key;
  const named = best([...names.keys()], (level) => likeness(names[level]!, field.heading));
  const free = [...names.keys()].find((level) => holds(level) === undefined);
  const level = named ?? free ?? names.length - 1;
  const parents = [...Array(level).keys()].map(holds);
  return { ...rule, level, parents: parents.every((key) => key !== undefined) ? parents.map((key) => key!) : [] };
}
