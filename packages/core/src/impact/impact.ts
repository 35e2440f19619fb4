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
  /** The level on which it stands, counted from 0; the deepest where it is left out. */
  readonly level?: number;
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
 * The impact of the diff of a level (the deepest where it is left out) on the fields bound to it. Values that no entry holds raise no
 * question. `meanings` hold what is meant by the edit of a value; that is then proposed.
 */
export function impactOf(diff: CatalogDiff, usage: Usage, meanings: ReadonlyMap<string, Answer> = new Map(), level?: number): Impact {
  const at = level === undefined ? {} : { level };
  const questions: Question[] = [];
  for (const value of diff.removed) {
    const holds = holdsOf(value, usage);
    if (Object.keys(holds).length > 0) questions.push({ value, ...at, holds, choices: ['retired', 'gone'] });
  }
  for (const edit of diff.edited) {
    const holds = holdsOf(edit.from, usage);
    if (Object.keys(holds).length === 0) continue;
    const proposed = meanings.get(edit.from) ?? proposedAnswer(edit);
    questions.push({
      value: edit.from,
      ...at,
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

/** A value that is asked about, with the level on which it stands and the parents that it left. */
export type AskedValue = Pick<Question, 'value' | 'level' | 'path'>;

/** By what an answer names its question: the value on its level, or the value under the parents that it left. */
export const questionKey = ({ value, level, path = [] }: AskedValue): string =>
  [...(level === undefined ? [] : [`level ${level}`, '']), ...path, value].join('\u001F');

/**
 * Whether an item goes with a question: it is the value, stands below it, or is what left its parents. `deepest`: the deepest level of the
 * catalog.
 */
export const goesWith = ({ value, level, path }: AskedValue, item: Pick<Item, 'value' | 'path'>, deepest: number): boolean => {
  const own = [...item.path, item.value];
  if (!path) return own[level ?? deepest] === value;
  const tuple = [...path, value];
  return tuple.every((part, at) => own[at] === part);
};

/** A spelling that is corrected, on its level: the deepest where it is left out. */
export interface Correction {
  readonly from: string;
  readonly to: string;
  readonly level?: number;
}

/** What an answer makes of the entries that hold the value. */
export interface Answered {
  /** What stays known as retired. */
  readonly retire: readonly AskedValue[];
  /** Entries follow from the old spelling to the new one, and the old one becomes another name. */
  readonly carry: readonly Correction[];
}

/**
 * Turns answered questions (`given` by their keys) into what is to be done; undefined while one is not answered, or not by one of its
 * choices.
 */
export function answered(questions: readonly Question[], given: ReadonlyMap<string, Answer>): Answered | undefined {
  const retire: AskedValue[] = [];
  const carry: Correction[] = [];
  for (const question of questions) {
    const answer = given.get(questionKey(question));
    if (answer === undefined || !question.choices.includes(answer)) return undefined;
    const at = question.level === undefined ? {} : { level: question.level };
    if (answer === 'corrected') carry.push({ from: question.value, to: question.becomes!, ...at });
    else if (answer !== 'gone') retire.push({ value: question.value, ...at, ...(question.path && { path: question.path }) });
  }
  return { retire, carry };
}
