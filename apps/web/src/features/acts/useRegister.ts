// A list or table of a source sheet: its entries, the rails over it, what is pending on it, and the acts one can do.
import { railsOf, type Rail, type RegisterState } from '@dellum/core';
import {
  registersOf,
  type ActDto,
  type BuildView,
  type EntryView,
  type FieldView,
  type Outcome,
  type RegisterView,
  type Slip,
} from '@dellum/contract';
import { useMemo, useRef, useState } from 'react';
import { useNotice, useTry } from '../../frame/useNotice.js';
import type { Block } from '../../grid/index.js';
import { useListEntriesQuery } from '../../data/entriesApi.js';
import { draftKey, settled, type Draft } from '../../data/draftsSlice.js';
import { passes, isProblem } from '../../data/problem.js';
import { useAppDispatch, useAppSelector } from '../../data/store.js';
import { actAtOnce, useActMutation } from '../../data/sourcesApi.js';
import { beginning, draftsOf, rowsWithKept, storeTexts, withBegun, writing, type BegunRow, type CellText } from './keptTexts.js';

/** What waits on a slip: by entry and field its new text; by entry alone, undefined, where it is to be deleted. */
export interface Pending {
  readonly texts: ReadonlyMap<string, string>;
  readonly deleted: ReadonlySet<string>;
}

export interface SourceRegister {
  readonly register: RegisterView;
  /** As the core reads it. */
  readonly state: RegisterState;
  /** What is stored, or shown ahead of it. */
  readonly entries: readonly EntryView[];
  /** As they stand on the page: the entries, and at their end new rows that could not be stored yet. */
  readonly rows: readonly EntryView[];
  readonly rails: readonly Rail[];
  readonly pending: Pending;
  /** True for a register of one field. */
  readonly isList: boolean;
  /** The rows of a block that are in the list: not those that only drafts hold. */
  rowsOf(block: Block): readonly EntryView[];
  fieldsOf(block: Block): readonly FieldView[];
  /** Does some acts together and says what came of them; false when they were refused. */
  act(...acts: readonly ActDto[]): Promise<boolean>;
  /** The id that the row typed below the last one will have. */
  readonly blank: string;
  /** True for the row below the last one, and for a new row that one is still typing. */
  isNew(row: number): boolean;
  /** Notes which row one is in: a new row that is left is one like all others. */
  iAmIn(row: number): void;
  /** Makes a row at once, under an id of ours, above another one or at the end; what is typed into it is part of the same act. */
  begin(id: string, cells: readonly CellText[], before?: string): Promise<boolean>;
  /** Writes into a row; into a new one, as part of its beginning. What is not stored stays in the cell as a draft. */
  write(id: string, field: string, text: string): Promise<boolean>;
  /** What was typed into a cell and is not stored. */
  draftOf(id: string, field: string): Draft | undefined;
  /** Drops what is kept of a cell. */
  dropDraft(id: string, field: string): void;
  /** Moves rows before another one, or to the end; shown at once, so that the next move begins where this one ends. */
  move(entries: readonly string[], before: string | undefined): Promise<boolean>;
  /** Does one part of a block; the parts join one act. Undefined when it was refused. */
  bringIn(acts: readonly ActDto[], joins: number | undefined): Promise<Outcome | undefined>;
  /** Says what came of a change; false when it failed. */
  told(request: Promise<Outcome>): Promise<boolean>;
}

/** Whether a row is more than what drafts hold of it. */
export const isInList = (row: EntryView | undefined): row is EntryView => row !== undefined && row.version > 0;

export const pendingKey = (entry: string, field: string): string => `${entry} ${field}`;

function pendingOf(slips: readonly Slip[], registerId: string): Pending {
  const texts = new Map<string, string>();
  const deleted = new Set<string>();
  for (const { proposal } of slips) {
    if (!registersOf(proposal).includes(registerId)) continue;
    for (const step of proposal.steps) {
      if (step.what !== 'act') continue;
      if (step.act.act === 'write') step.act.cells.forEach(({ entry, field, text }) => texts.set(pendingKey(entry, field), text));
      if (step.act.act === 'delete') step.act.entries.forEach((entry) => deleted.add(entry));
    }
  }
  return { texts, deleted };
}

/** Runs a change of the sources and says what came of it. */
export function useTold(): (request: Promise<Outcome>) => Promise<boolean> {
  const attempt = useTry();
  const notice = useNotice();
  return async (request) => {
    const outcome = await attempt(request);
    if (!outcome) return false;
    // A change that waits shows its slip beside the list; there is nothing else to say.
    if (outcome.notes.length > 0) notice('done', outcome.notes.join(' '));
    return true;
  };
}

export function useRegister(register: RegisterView, build: BuildView, slips: readonly Slip[]): SourceRegister | undefined {
  const { data: entries } = useListEntriesQuery(register.id);
  const [sendActs] = useActMutation();
  const dispatch = useAppDispatch();
  const told = useTold();
  const act = (...acts: readonly ActDto[]): Promise<boolean> => told(sendActs({ registerId: register.id, acts }).unwrap());
  const [blank, setBlank] = useState<string>(() => crypto.randomUUID());
  const [typing, setTyping] = useState<string>();
  /** Rows begun at the end of this page, in order. */
  const [begun, setBegun] = useState<readonly BegunRow[]>([]);
  /** The acts that made the rows of this page, by row. */
  const beginnings = useRef(new Map<string, Promise<number | undefined>>());
  const allDrafts = useAppSelector((state) => state.drafts);
  const drafts = useMemo(() => draftsOf(allDrafts, register.id), [allDrafts, register.id]);
  const isStored = (id: string) => entries?.some((entry) => entry.id === id) ?? false;
  /** What is kept in its cell until the server is back needs no word. */
  const toldUnlessKept = async (sent: Promise<Outcome>): Promise<boolean> => {
    const problem: unknown = await sent.then(
      () => undefined,
      (error: unknown) => error,
    );
    return isProblem(problem) && passes(problem) ? false : told(sent);
  };
  const begin = (id: string, cells: readonly CellText[], before?: string): Promise<boolean> => {
    if (id === blank) setBlank(crypto.randomUUID());
    setTyping(id);
    const isUnderWay = (underWay: boolean) => before === undefined && setBegun((all) => withBegun(all, { id, underWay }));
    isUnderWay(true);
    // Shown at once, sent in its turn.
    const sent = dispatch(storeTexts(register.id, id, cells, beginning(id, cells, before)));
    const made = sent.then(({ act: number }) => number).finally(() => isUnderWay(false));
    made.catch(() => undefined);
    beginnings.current.set(id, made);
    return toldUnlessKept(sent);
  };
  const keptOf = (id: string): CellText[] =>
    drafts.flatMap((draft) => (draft.entryId === id ? [{ field: draft.field, text: draft.text }] : []));
  const write = (id: string, field: string, text: string): Promise<boolean> => {
    const cells = [{ field, text }];
    if (!isStored(id)) return begin(id, [...keptOf(id).filter((cell) => cell.field !== field), ...cells]);
    return toldUnlessKept(
      dispatch(storeTexts(register.id, id, cells, writing(id, cells), id === typing ? beginnings.current.get(id) : undefined)),
    );
  };
  const move = (ids: readonly string[], before: string | undefined): Promise<boolean> =>
    told(
      dispatch(actAtOnce({ registerId: register.id, acts: [{ act: 'move', entries: [...ids], ...(before !== undefined && { before }) }] })),
    );
  const attempt = useTry();
  const bringIn = (acts: readonly ActDto[], joins: number | undefined) =>
    attempt(dispatch(actAtOnce({ registerId: register.id, acts, joins })));
  const state = useMemo<RegisterState | undefined>(
    () => entries && { id: register.id, heading: register.title, fields: register.fields, entries },
    [register, entries],
  );
  const rails = useMemo(() => (state ? railsOf(build.ranges, state) : []), [build.ranges, state]);
  const pending = useMemo(() => pendingOf(slips, register.id), [slips, register.id]);
  const rows = useMemo(() => (entries ? rowsWithKept(drafts, entries, begun) : []), [entries, drafts, begun]);
  if (!entries || !state) return undefined;
  return {
    register,
    state,
    entries,
    rows,
    rails,
    pending,
    isList: register.fields.length === 1,
    rowsOf: ({ top, bottom }) => rows.slice(top, bottom + 1).filter(isInList),
    fieldsOf: ({ left, right }) => register.fields.slice(left, right + 1),
    act,
    blank,
    draftOf: (id, field) => allDrafts[draftKey(id, field)],
    dropDraft: (id, field) => void dispatch(settled({ entryId: id, field })),
    isNew: (row) => row === rows.length || (typing !== undefined && rows[row]?.id === typing),
    iAmIn: (row) => {
      if (typing !== undefined && rows[row]?.id !== typing) setTyping(undefined);
    },
    begin,
    write,
    move,
    bringIn,
    told,
  };
}
