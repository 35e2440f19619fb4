// What a change of a catalog does to the entries that hold its values, in numbers, and the questions it raises.
import type { Item } from '../catalogs/index.js';
import type { FieldId } from '../registers/index.js';
import type { CatalogDiff } from './diff.js';
import { proposedAnswer } from './diff.js';

/** How many entries hold a value, by field. Costs grow with distinct values, never with entries. */
export type Usage = ReadonlyMap<FieldId, ReadonlyMap<string, number>>;

export const answers = ['corrected', 'replaced', 'retired', 'gone'] as const;
/**
 * `corrected`: the same thing spelled right, entries follow. `replaced`: another value from now on, the old one is
 * retired. `retired`: standing entries stay right. `gone`: entries that hold it are outside.
 */
export type Answer = (typeof answers)[number];

/** A question of the slip: a value that entries hold and that the sources no longer give. */
export interface Question {
  readonly value: string;
  /** The parents that the value left while it goes on under others, and those others; undefined where the value itself is asked about. */
  readonly path?: readonly string[];
  readonly under?: readonly string[];
  /** What the value became; undefined when it was removed. */
  readonly becomes?: string;
  readonly merges?: boolean;
  /** Entries that hold the value, by field. */
  readonly holds: Readonly<Record<FieldId, number>>;
  readonly choices: readonly Answer[];
  readonly proposed?: Answer;
}

export interface Impact {
  readonly questions: readonly Question[];
  /** Entries that come inside because a value was added, by field. */
  readonly inside: Readonly<Record<FieldId, number>>;
}

/** The values of a diff whose use decides the impact. */
export function touchedValues(diff: CatalogDiff): string[] {
  return [...diff.removed, ...diff.edited.map(({ from }) => from), ...diff.added];
}

function holdsOf(value: string, usage: Usage): Record<FieldId, number> {
  const holds: Record<FieldId, number> = {};
  for (const [field, counts] of usage) {
    const count = counts.get(value) ?? 0;
    if (count > 0) holds[field] = count;
  }
  return holds;
}

/**
 * The impact of a diff on the fields bound to the catalog. Values that no entry holds raise no question. `meanings` hold
 * what is meant by the edit of a value; that is then proposed.
 */
export function impactOf(diff: CatalogDiff, usage: Usage, meanings: ReadonlyMap<string, Answer> = new Map()): Impact {
  const questions: Question[] = [];
  for (const value of diff.removed) {
    const holds = holdsOf(value, usage);
    if (Object.keys(holds).length > 0) questions.push({ value, holds, choices: ['retired', 'gone'] });
  }
  for (const edit of diff.edited) {
    const holds = holdsOf(edit.from, usage);
    if (Object.keys(holds).length === 0) continue;
    const proposed = meanings.get(edit.from) ?? proposedAnswer(edit);
    questions.push({
      value: edit.from,
      becomes: edit.to,
      merges: edit.merges,
      holds,
      choices: ['corrected', 'replaced', 'gone'],
      ...(proposed && { proposed }),
    });
  }
  const inside: Record<FieldId, number> = {};
  for (const value of diff.added) {
    for (const [field, count] of Object.entries(holdsOf(value, usage))) inside[field] = (inside[field] ?? 0) + count;
  }
  return { questions, inside };
}

/** How many entries hold the value, all fields together. */
export const heldBy = (question: Question): number => Object.values(question.holds).reduce((sum, count) => sum + count, 0);

/** By what an answer names its question: the value, or the value under the parents that it left. */
export const questionKey = ({ value, path = [] }: Pick<Question, 'value' | 'path'>): string => [...path, value].join('\u001F');

/** Whether an item goes with a question: it is the value, stands below it, or is what left its parents. */
export const goesWith = ({ value, path }: Pick<Question, 'value' | 'path'>, item: Pick<Item, 'value' | 'path'>): boolean => {
  if (!path) return item.value === value || item.path.includes(value);
  const [tuple, own] = [
    [...path, value],
    [...item.path, item.value],
  ];
  return tuple.every((part, at) => own[at] === part);
};

/** What an answer makes of the entries that hold the value. */
export interface Answered {
  /** What stays known as retired. */
  readonly retire: readonly Pick<Question, 'value' | 'path'>[];
  /** Entries follow from the old spelling to the new one, and the old one becomes another name. */
  readonly carry: readonly { readonly from: string; readonly to: string }[];
}

/**
 * Turns answered questions (`given` by their keys) into what is to be done; undefined while one is not answered, or not by one of its
 * choices.
 */
export function answered(questions: readonly Question[], given: ReadonlyMap<string, Answer>): Answered | undefined {
  const retire: Pick<Question, 'value' | 'path'>[] = [];
  const carry: { from: string; to: string }[] = [];
  for (const question of questions) {
    const answer = given.get(questionKey(question));
    if (answer === undefined || !question.choices.includes(answer)) return undefined;
    if (answer === 'corrected') carry.push({ from: question.value, to: question.becomes! });
    else if (answer !== 'gone') retire.push({ value: question.value, ...(question.path && { path: question.path }) });
  }
  return { retire, carry };
}
