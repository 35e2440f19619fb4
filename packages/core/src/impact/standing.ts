// Standing entries before and after a change, by their distinct combinations: never entry by entry.
import { itemKey } from '../catalogs/index.js';
import type { Cells } from '../registers/index.js';
import { parentsOf, readsOf, stands, type CascadeField, type JudgeContext } from '../rules/index.js';
import { joinedValues, valuesIn } from '../values/index.js';
import { questionKey, type Question } from './impact.js';
import type { Displaced } from './tuples.js';

/** A value with what its rule reads besides, as entries hold it, and how many do. */
export interface Held {
  readonly cells: Cells;
  readonly entries: number;
}

export type StandingContext = Pick<JudgeContext, 'locale' | 'catalogs' | 'fields'>;

/** Whether a combination counts as outside in a field. What fails because of its parent counts where the parent does. */
export function isOutside(field: CascadeField, cells: Cells, context: StandingContext): boolean {
  const standing = stands(field, cells[field.key] ?? '', { ...context, ...(readsOf(field.rule).length > 0 && { entry: cells }) });
  return !standing.right && standing.code !== 'parent outside';
}

/** A field bound to a catalog that changes, with what its entries hold. */
export interface BoundField {
  readonly id: string;
  readonly field: CascadeField;
  /** The level to which it is bound, counted from 0; the deepest where it is left out. */
  readonly level?: number;
  readonly held: readonly Held[];
}

/** What a change does to standing entries beyond what is asked about single values, by the id of the field. */
export interface StandingChange {
  /** One for each value that left its parents and is held under them. */
  readonly questions: readonly Question[];
  readonly outside: Readonly<Record<string, number>>;
  readonly inside: Readonly<Record<string, number>>;
  /** Of the questions that are asked, by their keys, those whose loss turns an entry: what holds another under parents of its own stays right. */
  readonly turning: ReadonlySet<string>;
}

export const entriesHeld = (held: readonly Held[]): number => held.reduce((sum, { entries }) => sum + entries, 0);

const addTo = (sums: Record<string, number>, id: string, entries: number): void => {
  sums[id] = (sums[id] ?? 0) + entries;
};

/** The tuple that a combination holds in a field of a level, as the key of an item; undefined where a parent is blank. */
function tupleOf({ key, rule }: CascadeField, cells: Cells): string | undefined {
  const parents = parentsOf(rule);
  if (parents.length === 0) return undefined;
  const tuple = [...parents, key].map((one) => cells[one]);
  return tuple.every((value) => value !== undefined) ? tuple.join('\u001F') : undefined;
}

/** The cells once the values of a field are corrected. */
const corrected = ({ field: { key }, level }: BoundField, cells: Cells, becomes: ReadonlyMap<string, string>): Cells => ({
  ...cells,
  [key]: joinedValues(valuesIn(cells[key] ?? '').map((value) => becomes.get(questionKey({ value, level })) ?? value)),
});

/**
 * Judges every combination before and after. `asked`: the keys of questions of their own about values; what holds one
 * of those, in the field or as a parent, follows that answer and is counted there. `becomes`: what such a value is corrected to, where that
 * is proposed; what would not fit it is told beforehand. Cost grows with distinct combinations.
 */
export function standingChange(
  fields: readonly BoundField[],
  left: readonly Displaced[],
  asked: ReadonlySet<string>,
  becomes: ReadonlyMap<string, string>,
  before: StandingContext,
  after: StandingContext,
): StandingChange {
  const questions = new Map(
    left.map((one) => [itemKey(one), { ...one, holds: {} as Record<string, number>, choices: ['retired', 'gone'] as const }]),
  );
  const [outside, inside]: [Record<string, number>, Record<string, number>] = [{}, {}];
  const turning = new Set<string>();
  const unfit: { readonly asked: readonly string[]; readonly id: string; readonly entries: number }[] = [];
  for (const bound of fields) {
    const { id, field, level, held } = bound;
    const parents = parentsOf(field.rule);
    for (const { cells, entries } of held) {
      if (parents.some((key, at) => asked.has(questionKey({ value: cells[key] ?? '', level: at })))) continue;
      const [was, is] = [isOutside(field, cells, before), isOutside(field, cells, after)];
      const own = valuesIn(cells[field.key] ?? '')
        .map((value) => questionKey({ value, level }))
        .filter((one) => asked.has(one));
      // What is corrected is another value then, which may not fit where the old one, kept as it is, would.
      const isCorrected = own.length > 0 && own.every((one) => becomes.has(one));
      if (isCorrected && !was && isOutside(field, corrected(bound, cells, becomes), after)) unfit.push({ asked: own, id, entries });
      if (was === is) continue;
      own.forEach((one) => turning.add(one));
      if (own.length > 0) continue;
      const question = is ? questions.get(tupleOf(field, cells) ?? '') : undefined;
      if (question) addTo(question.holds, id, entries);
      else addTo(is ? outside : inside, id, entries);
    }
  }
  // A value that turns no entry is not asked about, and not corrected in any.
  for (const { asked: own, id, entries } of unfit) if (own.some((one) => turning.has(one))) addTo(outside, id, entries);
  return { questions: [...questions.values()].filter(({ holds }) => Object.keys(holds).length > 0), outside, inside, turning };
}
