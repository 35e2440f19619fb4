// What the cells of an entry sheet show, and what becomes of what is typed into them.
import { format, itemWithValue, judge, parse, stands, type Catalog } from '@dellum/core';
import type { EntryView, FieldView, Me, RegisterView } from '@dellum/contract';
import { useMemo } from 'react';
import type { CellLook } from '../../grid/index.js';
import type { Refusal } from '../../picker/PickerInput.js';
import { useAppDispatch, useAppSelector } from '../../store.js';
import type { ReadyCatalog } from '../catalogs/useCatalogs.js';
import { draftKey, drafted, settled, type Draft } from '../entries/draftsSlice.js';
import { sendEdit } from '../entries/sendEdit.js';

/** What was taken under another spelling is said. */
export interface Committed {
  readonly refusal?: Refusal;
  readonly said?: string;
}

const draftTones = { refused: 'refused', conflict: 'refused', waiting: 'waiting' } as const;
const draftSaid = { refused: 'refused', conflict: 'changed by someone else meanwhile', waiting: 'waits to be stored' } as const;

export const refusalOf = (draft: Draft | undefined): Refusal | undefined =>
  draft && draft.state !== 'waiting' ? { message: draft.message, suggestions: draft.suggestions, conflict: draft.state === 'conflict' } : undefined;

export function useSheetCells(register: RegisterView, ready: ReadonlyMap<string, ReadyCatalog>, me: Me) {
  const dispatch = useAppDispatch();
  const drafts = useAppSelector((state) => state.drafts);
  const { locale, today } = me.house;
  const catalogs = useMemo<ReadonlyMap<string, Catalog>>(() => new Map([...ready].map(([id, { catalog }]) => [id, catalog])), [ready]);
  const isReady = (field: FieldView) => !field.rule || catalogs.has(field.rule.catalogId);
  const draftOf = (entry: EntryView, field: FieldView) => drafts[draftKey(entry.id, field.key)];
  /** A value of a catalog is shown by its label. */
  const shown = (entry: EntryView, field: FieldView): string => {
    const value = entry.cells[field.key] ?? '';
    const catalog = field.rule && catalogs.get(field.rule.catalogId);
    return (catalog && itemWithValue(catalog, value)?.label) ?? format(field.kind, value, locale);
  };
  const markOf = (field: FieldView, value: string) => (field.rule ? itemWithValue(catalogs.get(field.rule.catalogId)!, value)?.colour : undefined);

  const look = (entry: EntryView, field: FieldView): CellLook => {
    const draft = draftOf(entry, field);
    if (draft) return { text: draft.text, tone: draftTones[draft.state], said: `${draftSaid[draft.state]}: ${draft.message}` };
    const value = entry.cells[field.key];
    if (value === undefined) return { text: '', tone: 'plain' };
    const standing = isReady(field) ? stands(field, value, { locale, catalogs }) : { right: true as const };
    const mark = isReady(field) ? markOf(field, value) : undefined;
    return standing.right ? { text: shown(entry, field), tone: 'plain', ...(mark && { mark }) } : { text: value, tone: 'outside', said: `outside. ${standing.message}` };
  };

  /** Judges at once and sends what is taken; refused text stays with the cell as a draft. */
  const commit = (entry: EntryView, field: FieldView, text: string): Committed => {
    const held = entry.cells[field.key] ?? '';
    const draft = draftOf(entry, field);
    const where = { registerId: register.id, entryId: entry.id, field: field.key };
    if (draft?.state === 'conflict' && text === draft.suggestions[0]) {
      dispatch(settled(where));
      return {};
    }
    // What is shown formatted and left as it was is no edit.
    const typed = text === shown(entry, field) ? held : text;
    const verdict = isReady(field) ? judge(field, typed, { locale, catalogs, held, suggest: true, today }) : undefined;
    if (verdict?.verdict === 'refused') {
      const { message, suggestions } = verdict;
      dispatch(drafted({ ...where, text, state: 'refused', message, suggestions }));
      return { refusal: { message, suggestions } };
    }
    dispatch(settled(where));
    const expected = verdict ? verdict.value : optimistic(field, typed, locale);
    if (expected === held && verdict) return verdict.corrected ? { said: verdict.corrected } : {};
    void dispatch(sendEdit({ ...where, text: typed, expected, held, version: draft?.version ?? entry.version }));
    return verdict?.corrected ? { said: verdict.corrected } : {};
  };

  const dropDraft = (entry: EntryView, field: FieldView) => dispatch(settled({ entryId: entry.id, field: field.key }));
  return { look, shown, commit, draftOf, dropDraft };
}

function optimistic(field: FieldView, text: string, locale: Me['house']['locale']): string {
  const parsed = field.rule ? undefined : parse(field.kind, text, locale);
  return parsed?.ok ? parsed.value : text;
}
