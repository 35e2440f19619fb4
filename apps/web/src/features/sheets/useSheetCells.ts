// What the cells of an entry sheet show, and what becomes of what is typed into them.
import {
  afterVerdict,
  askedBeforeNew,
  blankIsWrong,
  catalogIdOf,
  grouped,
  hasCatalog,
  judge,
  listOf,
  parse,
  readsOf,
  ruleHere,
  stands,
  typedValue,
  valuesIn,
  type CascadePlan,
  type Catalog,
  type Given,
  type ItemColour,
  type JudgeContext,
} from '@dellum/core';
import { mayDesign, type EntryView, type FieldView, type Me, type RegisterView, type RequestAtEntry } from '@dellum/contract';
import { useMemo, useRef } from 'react';
import type { CellLook } from '../../grid/index.js';
import type { Refusal } from '../../picker/PickerInput.js';
import { useAppDispatch, useAppSelector, type AppDispatch, type RootState } from '../../data/store.js';
import { pickList } from '../../picker/pickList.js';
import { daysOf } from '../entries/daysOf.js';
import { draftKey, drafted, givenIn, mendedBy, settled, type Draft } from '../../data/draftsSlice.js';
import { did } from '../entries/doneSlice.js';
import { underWay } from '../entries/inFlight.js';
import { began } from '../../data/newEntriesSlice.js';
import { sendEdit } from '../entries/sendEdit.js';
import { itemOf, shownValue } from '../entries/shownValue.js';
import { useRequestsOfRegisterQuery } from '../../data/requestsApi.js';

/** What was taken under another spelling is said. */
export interface Committed {
  readonly refusal?: Refusal;
  readonly said?: string;
}

/** So many refused texts are judged again by themselves; those after them when their turn comes. */
const mostJudgedAgain = 200;

const draftTones = { refused: 'refused', conflict: 'refused', waiting: 'waiting' } as const;
const draftSaid = { refused: 'refused', conflict: 'changed by someone else meanwhile', waiting: 'waits to be stored' } as const;

export const refusalOf = (draft: Draft | undefined): Refusal | undefined =>
  draft && draft.state !== 'waiting'
    ? {
        message: draft.message,
        suggestions: draft.suggestions,
        conflict: draft.state === 'conflict',
        ...(draft.mayConfirm && { mayConfirm: true }),
      }
    : undefined;

/** What followed in other fields, in a sentence: "Lantern 2 was cleared from Berth." */
function followed(
  { cleared, filled, kept }: CascadePlan,
  register: RegisterView,
  shown: (field: FieldView, value: string) => string,
): string {
  const valueIn = (key: string, value: string) => {
    const field = register.fields.find((known) => known.key === key);
    return field ? shown(field, value) : value;
  };
  const heading = (key: string) => register.fields.find((field) => field.key === key)?.heading ?? key;
  const words = [
    ...cleared.map(({ field, value }) => `${valueIn(field, value)} was cleared from ${heading(field)}`),
    ...filled.filter(({ value }) => value !== '').map(({ field, value }) => `${heading(field)} is ${valueIn(field, value)} with it`),
    ...kept.map((field) => `${heading(field)} no longer fits and is marked`),
  ];
  return words.length === 0 ? '' : `${words.join('; ')}.`;
}

/** What is said at a cell whose value was asked for. */
const askedWords = ({ state, by, word }: RequestAtEntry): string =>
  state === 'declined'
    ? `declined by ${by ?? 'the steward'}${word ? `: “${word}”` : ''}`
    : 'asked for; whoever keeps the catalog will answer';

export function useSheetCells(register: RegisterView, catalogs: ReadonlyMap<string, Catalog>, me: Me) {
  const dispatch = useAppDispatch();
  const drafts = useAppSelector((state) => state.drafts);
  const { data: requests } = useRequestsOfRegisterQuery(register.id);
  const asked = useMemo(() => grouped(requests ?? [], ({ entryId, field }) => draftKey(entryId, field)), [requests]);
  const { locale, today } = me.house;
  const context = useMemo<JudgeContext>(
    () => ({ locale, catalogs, today, fields: register.fields, designs: mayDesign(me.role) }),
    [locale, catalogs, today, register.fields, me.role],
  );
  const depending = useMemo(
    () => new Set(register.fields.filter(({ rule }) => readsOf(rule).length > 0).map(({ key }) => key)),
    [register.fields],
  );
  const isReady = (field: FieldView) => hasCatalog(field, catalogs);
  const draftOf = (entry: EntryView, field: FieldView) => drafts[draftKey(entry.id, field.key)];
  const itemHeld = (field: FieldView, value: string) => itemOf(field, value, catalogs, locale);
  const shownValueOf = (field: FieldView, value: string): string => shownValue(field, value, catalogs, locale);
  const shown = (entry: EntryView, field: FieldView): string => shownValueOf(field, entry.cells[field.key] ?? '');

  /** The text with which editing begins, and that is copied: typed as it is it changes nothing. */
  const typedOf = (entry: EntryView, field: FieldView): string => typedValue(field, entry.cells[field.key] ?? '', catalogs, locale, today);

  /** The colour of what an entry holds in a field. */
  const colourOf = (entry: EntryView, field: FieldView): ItemColour | undefined => itemHeld(field, entry.cells[field.key] ?? '')?.colour;
  /** The colours of a field's list, each with the values that have it. */
  const legendOf = (field: FieldView | undefined): { label: string; colour: ItemColour }[] => {
    const items = (field && listOf(field, catalogs, locale))?.items ?? [];
    const coloured = items.filter(({ colour, state }) => colour !== undefined && state === 'offered');
    return [...grouped(coloured, ({ colour }) => colour!)].map(([colour, items]) => ({
      colour,
      label: items.length > 3 ? `${items[0]!.label} and ${items.length - 1} more` : items.map(({ label }) => label).join(', '),
    }));
  };

  /** A blank cell is marked where something must stand; in a new entry only once it is left. */
  const blankLook = (entry: EntryView, field: FieldView): CellLook => {
    const standing =
      entry.version > 0 && blankIsWrong(field) && isReady(field)
        ? stands(field, '', { ...context, entry: entry.cells })
        : { right: true as const };
    return standing.right ? { text: '', tone: 'plain' } : { text: '', tone: 'outside', said: `outside. ${standing.message}` };
  };
  const look = (entry: EntryView, field: FieldView): CellLook => {
    const draft = draftOf(entry, field);
    if (draft) return { text: draft.text, tone: draftTones[draft.state], said: `${draftSaid[draft.state]}: ${draft.message}` };
    const value = entry.cells[field.key];
    if (value === undefined) return blankLook(entry, field);
    const standing = isReady(field)
      ? stands(field, value, depending.has(field.key) ? { ...context, entry: entry.cells } : context)
      : { right: true as const };
    const mark = itemHeld(field, valuesIn(value)[0] ?? '')?.colour;
    const request = standing.right
      ? undefined
      : asked.get(draftKey(entry.id, field.key))?.find((one) => valuesIn(value).includes(one.value));
    if (request)
      return {
        text: shown(entry, field),
        tone: request.state === 'waiting' ? 'asked' : 'outside',
        said: `outside, ${askedWords(request)}`,
      };
    return standing.right
      ? { text: shown(entry, field), tone: 'plain', ...(mark && { mark }) }
      : { text: shown(entry, field), tone: 'outside', said: `outside. ${standing.message}` };
  };

  /**
   * Judges at once and sends what is taken; refused text stays with the cell as a draft. `seen`: the version at which the edit was begun.
   */
  const commit = (entry: EntryView, field: FieldView, given: Given, confirmed = false, seen?: number): Committed => {
    const text = given.typed ?? typedValue(field, given.chosen, catalogs, locale, today);
    const held = entry.cells[field.key] ?? '';
    const draft = draftOf(entry, field);
    const where = { registerId: register.id, entryId: entry.id, field: field.key };
    if (draft?.state === 'conflict' && text === draft.suggestions[0]) {
      dispatch(settled(where));
      return {};
    }
    const isAsShown =
      given.typed !== undefined && field.kind === 'text' && (text === shown(entry, field) || text === typedOf(entry, field));
    // What is shown formatted and left as it was is no edit; what was kept here and is left as it was is what it was.
    const meant: Given = isAsShown ? { typed: held } : draft && given.typed !== undefined ? mendedBy(draft, text) : given;
    const verdict = isReady(field) ? judge(field, meant, { ...context, entry: entry.cells, held, suggest: true, confirmed }) : undefined;
    const notTaken = verdict?.verdict === 'refused' ? verdict : verdict && !confirmed ? askedBeforeNew(verdict, text) : undefined;
    if (notTaken) {
      const { message, suggestions, mayConfirm } = notTaken;
      const refusal = { message, suggestions, ...(mayConfirm && { mayConfirm }) };
      const kept: Draft = { ...where, text, ...(meant.chosen !== undefined && { chosen: meant.chosen }), state: 'refused', ...refusal };
      dispatch(drafted(kept));
      dispatch(did({ registerId: register.id, act: { act: 'wrote', cells: [], refused: [kept] } }));
      return { refusal };
    }
    dispatch(settled(where));
    const value = verdict && verdict.verdict !== 'refused' ? verdict.value : optimistic(field, meant, locale);
    const corrected =
      verdict?.verdict === 'taken' ? verdict.corrected : verdict && verdict.verdict !== 'marked' ? verdict.message : undefined;
    if (value === held && verdict) return corrected ? { said: corrected } : {};
    const plan = afterVerdict(register.fields, entry.cells, field.key, verdict ?? { verdict: 'taken', value }, context) ?? {
      cells: entry.cells,
      cleared: [],
      kept: [],
      filled: [],
    };
    // The blank row has the id of its entry already; with its first value it is one.
    if (entry.version === 0) dispatch(beganOnce(register.id, { ...entry, cells: plan.cells }));
    void underWay(
      dispatch(
        sendEdit({
          ...where,
          given: meant,
          text,
          expected: plan.cells,
          before: entry.cells,
          version: draft?.version ?? (seen || entry.version),
          ...(confirmed && { confirmed }),
        }),
      ),
    );
    return { said: [corrected, followed(plan, register, shownValueOf)].filter(Boolean).join(' ') };
  };

  /** What refused texts were judged by; they are judged again when it is not what it was. */
  const judgedBy = useRef(new Map<string, string>());
  const catalogMarks = useRef(new WeakMap<Catalog, number>());
  const marksMade = useRef(0);
  const markOf = (catalog: Catalog | undefined): number => {
    if (!catalog) return 0;
    const mark = catalogMarks.current.get(catalog) ?? ++marksMade.current;
    catalogMarks.current.set(catalog, mark);
    return mark;
  };
  /** Judges what was refused again once the list, the rule or what it depends on has changed: what fits now is stored. */
  const judgedAgain = (refused: readonly Draft[], find: (id: string) => EntryView | undefined): void => {
    for (const draft of refused.slice(0, mostJudgedAgain)) {
      const entry = find(draft.entryId);
      const field = register.fields.find(({ key }) => key === draft.field);
      if (!entry || !field || !isReady(field)) continue;
      const key = draftKey(draft.entryId, draft.field);
      const by = JSON.stringify([
        draft.text,
        field.kind,
        field.rule,
        markOf(catalogs.get(catalogIdOf(field.rule) ?? '')),
        readsOf(field.rule).map((read) => entry.cells[read] ?? ''),
        entry.cells[draft.field] ?? '',
      ]);
      const before = judgedBy.current.get(key);
      judgedBy.current.set(key, by);
      if (before === undefined || before === by || !before.startsWith(JSON.stringify([draft.text]).slice(0, -1))) continue;
      const verdict = judge(field, givenIn(draft), { ...context, entry: entry.cells, held: entry.cells[field.key] ?? '', suggest: true });
      // What was asked about before it becomes a new value waits for the answer.
      if (askedBeforeNew(verdict, draft.text)) continue;
      if (verdict.verdict !== 'refused') commit(entry, field, givenIn(draft));
      else if (verdict.message !== draft.message)
        dispatch(drafted({ ...draft, message: verdict.message, suggestions: verdict.suggestions }));
    }
  };

  /** What is picked from in a cell, as its rule stands in the entry. */
  const listFor = (entry: EntryView | undefined, field: FieldView) =>
    pickList(ruleHere(field, { entry: entry?.cells ?? {} }), field.kind, {
      ...context,
      entry: entry?.cells ?? {},
      held: entry?.cells[field.key] ?? '',
    });
  const daysFor = (entry: EntryView | undefined, field: FieldView) => daysOf(field, { ...context, today, entry: entry?.cells ?? {} });
  const dropDraft = (entry: EntryView, field: FieldView) => dispatch(settled({ entryId: entry.id, field: field.key }));
  return { judgedAgain, look, shown, typedOf, shownValue: shownValueOf, colourOf, legendOf, commit, draftOf, dropDraft, listFor, daysFor };
}

/** Makes an entry of the blank row, unless it has been made. */
const beganOnce = (registerId: string, entry: EntryView) => (dispatch: AppDispatch, getState: () => RootState) => {
  if (getState().newEntries[registerId]?.blank === entry.id) dispatch(began({ registerId, entry }));
};

function optimistic(field: FieldView, { typed: text, chosen }: Given, locale: Me['house']['locale']): string {
  if (text === undefined) return chosen;
  const parsed = field.rule ? undefined : parse(field.kind, text, locale);
  return parsed?.ok ? parsed.value : text;
}
