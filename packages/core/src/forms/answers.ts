// Judging what was answered in a form: each field by its own rule in the entry as the form makes it. There is no second judge.
import { withTexts, type Cells, type FieldId } from '../registers/index.js';
import { afterVerdict, inReadingOrder } from '../edits/index.js';
import { isNothing, judge, type CascadeField, type Given, type JudgeContext, type Verdict } from '../rules/index.js';
import { askedIn, type FormLayout } from './models.js';
import { shownIn } from './shown.js';

export interface FormAnswers {
  /** What was typed or chosen, by field. */
  readonly given: Readonly<Record<FieldId, Given>>;
  /** Fields whose value was said to be meant. */
  readonly confirmed: ReadonlySet<FieldId>;
}
export interface JudgedForm {
  /** The entry as it would be stored; fields whose answer is refused are blank. */
  readonly cells: Cells;
  readonly shown: ReadonlySet<FieldId>;
  /** The verdict on each shown field, in the order in which they are asked. */
  readonly verdicts: ReadonlyMap<FieldId, Verdict>;
}
export interface FormContext extends Pick<JudgeContext, 'locale' | 'catalogs' | 'today' | 'suggest'> {
  /** What a new entry holds in the fields that the form does not ask. */
  readonly begins: Cells;
  /** Whether another entry of the register holds this value. */
  readonly repeats?: (field: FieldId, value: string) => boolean;
}

/** The asked fields, each after those on which it depends; where they go round, as they are asked. */
function inTurn(layout: FormLayout, fields: readonly CascadeField[]): readonly CascadeField[] {
  const asked = askedIn(layout).flatMap(({ field }) => fields.find(({ key }) => key === field) ?? []);
  return inReadingOrder(asked);
}

/** Judges the answers while these fields are shown. */
function pass(
  turns: readonly CascadeField[],
  fields: readonly CascadeField[],
  shown: ReadonlySet<FieldId>,
  { given, confirmed }: FormAnswers,
  context: FormContext,
): Omit<JudgedForm, 'shown'> {
  const { begins, repeats, ...known } = context;
  const verdicts = new Map<FieldId, Verdict>();
  const asked = new Set(turns.map(({ key }) => key));
  let cells: Cells = Object.fromEntries(Object.entries(begins).filter(([key]) => !asked.has(key)));
  const verdictOn = (field: CascadeField, answer: Given) =>
    judge(field, answer, {
      ...known,
      fields,
      entry: cells,
      answering: true,
      confirmed: confirmed.has(field.key),
      ...(repeats && { repeats: (value: string) => repeats(field.key, value) }),
    });
  const open = turns.filter(({ key }) => shown.has(key));
  for (const field of open) {
    const answer = given[field.key];
    if (!answer || isNothing(answer)) continue;
    const verdict = verdictOn(field, answer);
    verdicts.set(field.key, verdict);
    cells = afterVerdict(fields, cells, field.key, verdict, { ...known, fields })?.cells ?? cells;
  }
  // What was left blank may have been filled by another answer; what still is blank is judged as that.
  for (const field of open)
    if (!verdicts.has(field.key))
      verdicts.set(
        field.key,
        cells[field.key] === undefined ? verdictOn(field, { typed: '' }) : { verdict: 'taken', value: cells[field.key]! },
      );
  const hidden = [...asked].filter((key) => !shown.has(key));
  return {
    cells: withTexts(
      cells,
      hidden.map((key) => [key, ''] as const),
    ),
    verdicts,
  };
}

const same = (a: ReadonlySet<FieldId>, b: ReadonlySet<FieldId>): boolean => a.size === b.size && [...a].every((field) => b.has(field));

/**
 * Judges the answers of a form. Hidden fields are neither asked nor stored, whatever was answered in them; fields that the
 * form does not ask hold what they begin with, and what other answers bring along.
 */
export function judgeForm(layout: FormLayout, fields: readonly CascadeField[], answers: FormAnswers, context: FormContext): JudgedForm {
  const turns = inTurn(layout, fields);
  let shown: ReadonlySet<FieldId> = new Set(turns.map(({ key }) => key));
  // What is shown follows from what is taken, and the other way round: at most one more turn for each field.
  for (let turn = 0; ; turn++) {
    const judged = pass(turns, fields, shown, answers, context);
    // A field that the register has no more is asked by the layout, and by nobody else.
    const next = new Set([...shownIn(layout, judged.cells)].filter((key) => turns.some((field) => field.key === key)));
    if (same(next, shown) || turn > turns.length) {
      const order = askedIn(layout).flatMap(({ field }) =>
        judged.verdicts.has(field) ? [[field, judged.verdicts.get(field)!] as const] : [],
      );
      return { cells: judged.cells, shown, verdicts: new Map(order) };
    }
    shown = next;
  }
}
