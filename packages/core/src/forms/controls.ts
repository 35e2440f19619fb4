// The controls that can ask a field: which one follows from its rule and the length of its list, and which others can.
import type { Catalog } from '../catalogs/index.js';
import { catalogIdOf, parentsOf, picksFrom, valuesOf, type JudgedField, type Rule } from '../rules/index.js';
import type { Control } from './models.js';

/** So many values a control shows at most without getting in the way; controls that search have no limit. */
const longest: Partial<Record<Control, number>> = { 'radio buttons': 12, 'check boxes': 30, 'open list': 60, 'drop-down': 200 };
/** Up to so many values are all in sight by themselves. */
const inSight = { one: 5, several: 8 };
const inDropDown = 15;

/** How many values a rule offers at once: of a list under parents, the most that stand under one of them. Undefined without a list. */
export function lengthOfList(rule: Rule | null, catalogs: ReadonlyMap<string, Catalog>): number | undefined {
  const depth = parentsOf(rule).length;
  const catalog = depth === 0 ? undefined : catalogs.get(catalogIdOf(rule) ?? '');
  if (!catalog) return valuesOf(rule, catalogs)?.length;
  const lengths = new Map<string, number>();
  for (const { path } of catalog.all)
    if (path.length === depth) lengths.set(path.join('\u001F'), (lengths.get(path.join('\u001F')) ?? 0) + 1);
  return Math.max(0, ...lengths.values());
}

/** The controls that can ask a field, the one that follows from its rule first. `length`: of its list, where that is known. */
export function controlsFor(
  { kind, rule }: Pick<JudgedField, 'kind' | 'rule'>,
  length: number | undefined,
): readonly [Control, ...Control[]] {
  const long = length ?? Infinity;
  if (kind === 'several values') {
    // Values that the list does not have can only be typed.
    if (!picksFrom(rule) || rule!.others !== 'refuse') return ['tokens'];
    return long <= inSight.several ? ['check boxes', 'tokens'] : ['tokens', 'check boxes'];
  }
  if (picksFrom(rule)) {
    if (rule!.others !== 'refuse') return ['picker'];
    const all: Control[] = ['radio buttons', 'drop-down', 'open list', 'picker'];
    const first: Control = long <= inSight.one ? 'radio buttons' : long <= inDropDown ? 'drop-down' : 'picker';
    return [first, ...all.filter((control) => control !== first)];
  }
  if (kind === 'yes/no') return ['yes or no'];
  if (kind === 'date') return ['calendar'];
  return kind === 'text' ? ['line', 'several lines'] : ['line'];
}

/** The control by which a field is asked: the chosen one where it can ask it. */
export function controlOf(field: Pick<JudgedField, 'kind' | 'rule'>, chosen: Control | null, length: number | undefined): Control {
  const can = controlsFor(field, length);
  return chosen && can.includes(chosen) ? chosen : can[0];
}

/** How many values the control shows at most; undefined for any number. */
export const mostIn = (control: Control): number | undefined => longest[control];
