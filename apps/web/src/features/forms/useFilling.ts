// Filling a form: what is typed, what it means by the rules, what is shown because of it, and what is wrong.
import {
  afterVerdict,
  askedIn,
  catalogIdOf,
  cellsOfNew,
  hasCatalog,
  isNothing,
  judgeForm,
  wordsOf,
  type Catalog,
  type FormContext,
  type Given,
  type Verdict,
} from '@dellum/core';
import { givenMembers, type AnswerFault, type FieldView, type FillView, type FormAnswerDto } from '@dellum/contract';
import { useEffect, useMemo, useState } from 'react';
import type { Refusal } from '../../picker/PickerInput.js';
import { draftOf, emptyDraft, keepDraft, type FormDraft } from './draft.js';
import { shownValue } from '../entries/shownValue.js';

const refusalOf = ({ message, suggestions, mayConfirm }: Omit<AnswerFault, 'field' | 'code'>): Refusal => ({
  message,
  suggestions,
  ...(mayConfirm && { mayConfirm }),
});

/** The values with which the fields begin. */
function beginning({ layout, fields, house }: FillView): FormDraft['given'] {
  const begun = cellsOfNew(fields, undefined, house.today);
  const own = Object.fromEntries(askedIn(layout).flatMap(({ field, begins }) => (begins === null ? [] : [[field, begins] as const])));
  const known = new Set(fields.map(({ key }) => key));
  return Object.fromEntries(
    Object.entries({ ...begun, ...own }).flatMap(([key, value]) =>
      known.has(key) && value !== '' ? [[key, { chosen: value }] as const] : [],
    ),
  );
}

/** `draftKey`: under which the draft is kept in this browser; undefined keeps none. */
export function useFilling(view: FillView, catalogs: ReadonlyMap<string, Catalog>, draftKey: string | undefined) {
  const [restored] = useState(() => (draftKey === undefined ? undefined : draftOf(draftKey)));
  const [draft, setDraft] = useState<FormDraft>(() => restored ?? { ...emptyDraft(), given: beginning(view) });
  const [isRestored, setIsRestored] = useState(restored !== undefined);
  const [touched, setTouched] = useState<ReadonlySet<string>>(() => new Set(Object.keys(restored?.given ?? {})));
  const [tries, setTries] = useState(0);
  const [faults, setFaults] = useState<readonly AnswerFault[]>([]);
  const [said, setSaid] = useState('');
  const { locale, today } = view.house;
  useEffect(() => {
    if (draftKey !== undefined && Object.values(draft.given).some((one) => !isNothing(one))) keepDraft(draftKey, draft);
  }, [draftKey, draft]);

  const isReady = (field: FieldView) => hasCatalog(field, catalogs);
  // While its list is coming, a field takes what is typed; it is judged when the list is there.
  const fields = useMemo(
    () =>
      view.fields.map((field) =>
        catalogIdOf(field.rule) === undefined || catalogs.has(catalogIdOf(field.rule)!) ? field : { ...field, rule: null },
      ),
    [view.fields, catalogs],
  );
  const context = useMemo<FormContext>(
    () => ({ locale, today, catalogs, suggest: true, begins: view.begins }),
    [locale, today, catalogs, view.begins],
  );
  const confirmed = useMemo(() => new Set(draft.confirmed), [draft.confirmed]);
  const judged = useMemo(
    () => judgeForm(view.layout, fields, { given: draft.given, confirmed }, context),
    [view.layout, fields, draft.given, confirmed, context],
  );
  const { cells, shown, verdicts } = judged;
  const headingOf = (key: string) => view.fields.find((field) => field.key === key)?.heading ?? key;

  /** Everything that is wrong now, in the order of the form. */
  const problems = askedIn(view.layout).flatMap(({ field }): AnswerFault[] => {
    const verdict = verdicts.get(field);
    if (verdict?.verdict === 'refused') return [{ field, ...verdict }];
    return faults.filter((fault) => fault.field === field);
  });

  const change = (given: FormDraft['given'], confirming?: { field: string; meant: boolean }) => {
    setDraft((before) => ({
      ...before,
      given: { ...before.given, ...given },
      confirmed: confirming
        ? [...before.confirmed.filter((key) => key !== confirming.field), ...(confirming.meant ? [confirming.field] : [])]
        : before.confirmed,
    }));
    setFaults((before) => before.filter(({ field }) => given[field] === undefined));
  };
  const shownOf = (key: string, value: string) => {
    const field = view.fields.find((known) => known.key === key);
    return field ? shownValue(field, value, catalogs, locale) : value;
  };

  /** Judges what was entered into a field; what follows in others is done and said. Returns why it is not taken. */
  const commit = (field: FieldView, given: Given, meant = false): Refusal | undefined => {
    setTouched((before) => new Set(before).add(field.key));
    const all = { ...draft.given, [field.key]: given };
    const confirming = { field: field.key, meant };
    const next = judgeForm(
      view.layout,
      fields,
      { given: all, confirmed: meant ? new Set([...confirmed, field.key]) : new Set([...confirmed].filter((key) => key !== field.key)) },
      context,
    );
    const verdict = next.verdicts.get(field.key);
    if (!isReady(field) || !verdict || verdict.verdict === 'refused') {
      change({ [field.key]: given }, confirming);
      setSaid('');
      return verdict?.verdict === 'refused' && !isNothing(given) ? refusalOf(verdict) : undefined;
    }
    const follows = followed(field, verdict);
    change({ ...follows.given, [field.key]: { chosen: verdict.value } }, confirming);
    setSaid([verdict.verdict === 'taken' ? (verdict.corrected ?? '') : verdict.message, follows.words].filter(Boolean).join(' '));
    return undefined;
  };

  /** What a taken value does to other answers: those that no longer fit are cleared, others are filled. */
  const followed = (field: FieldView, verdict: Verdict): { given: FormDraft['given']; words: string } => {
    const plan = afterVerdict(fields, cells, field.key, verdict, { locale, catalogs, fields, ...(today && { today }) });
    if (!plan) return { given: {}, words: '' };
    const filled = plan.filled.filter((one) => view.fields.some(({ key }) => key === one.field));
    const given = Object.fromEntries([
      ...plan.cleared.map((one) => [one.field, { chosen: '' }] as const),
      ...filled.map((one) => [one.field, { chosen: one.value }] as const),
    ]);
    const words = [
      ...plan.cleared.map((one) => `${shownOf(one.field, one.value)} was cleared from ${headingOf(one.field)}`),
      ...filled.filter((one) => one.value !== '').map((one) => `${headingOf(one.field)} is ${shownOf(one.field, one.value)} with it`),
    ];
    return { given, words: words.length === 0 ? '' : `${words.join('; ')}.` };
  };

  return {
    given: draft.given,
    /** What was typed into a field, or is shown of what was chosen. */
    textIn: ({ key, kind }: FieldView): string => (draft.given[key] ? wordsOf(kind, draft.given[key], locale) : ''),
    cells,
    shown,
    context,
    fields,
    isReady,
    isRestored,
    said,
    problems,
    /** How often somebody has tried to send; from the first time on, all problems are listed. */
    tries,
    commit,
    /** Keeps what is being typed, without judging it yet. */
    type: (field: FieldView, text: string) =>
      draftKey !== undefined && keepDraft(draftKey, { ...draft, given: { ...draft.given, [field.key]: { typed: text } } }),
    /** What is said at a field: once it was left, or somebody has tried to send. */
    refusalAt: (key: string): Refusal | undefined => {
      const problem = problems.find(({ field }) => field === key);
      return problem && (tries > 0 || (touched.has(key) && problem.code !== 'blank')) ? refusalOf(problem) : undefined;
    },
    submission: draft.submission,
    answers: (): FormAnswerDto[] =>
      askedIn(view.layout).flatMap(({ field }) =>
        shown.has(field) && draft.given[field] && !isNothing(draft.given[field])
          ? [{ field, ...givenMembers(draft.given[field]), ...(confirmed.has(field) && { confirmed: true }) }]
          : [],
      ),
    tryToSend: () => setTries(tries + 1),
    refused: (next: readonly AnswerFault[]) => {
      setFaults(next);
      setTries((before) => before + 1);
    },
    /** Begins another entry; the draft is dropped. */
    anew: () => {
      if (draftKey !== undefined) keepDraft(draftKey, undefined);
      setDraft({ ...emptyDraft(), given: beginning(view) });
      setTouched(new Set());
      setTries(0);
      setFaults([]);
      setSaid('');
      setIsRestored(false);
    },
  };
}
export type Filling = ReturnType<typeof useFilling>;
