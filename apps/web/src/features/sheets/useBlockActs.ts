// What is done to blocks of a sheet: pasted, cleared, carried down, replaced, deleted. What is small is judged and shown at
// once; what is large is done by the server as one act. What is refused stays with its cell as a draft.
import { givenBy, givenIn, wordsOf, type FillAct, type Given, type ReplaceAct, type Search, type WritingAct } from '@dellum/core';
import {
  mostAtOnce,
  givenMembers,
  mostCells,
  type BlockOutcome,
  type EntryActDto,
  type EntryView,
  type FieldView,
  type Me,
  type RegisterView,
} from '@dellum/contract';
import { useNotice, useTry } from '../../frame/useNotice.js';
import type { Block, Place } from '../../grid/index.js';
import { store, useAppDispatch } from '../../data/store.js';
import { outcomeWords, useActDone } from '../entries/actOutcome.js';
import { did } from '../entries/doneSlice.js';
import { drafted, settled, type Draft } from '../../data/draftsSlice.js';
import { dropped } from '../../data/newEntriesSlice.js';
import { updateEntry, useDeleteEntriesMutation, useInsertEntriesMutation, useWriteBlockMutation } from '../../data/entriesApi.js';
import { doAct } from '../../data/entryActsApi.js';
import { asGiven } from '../../data/recentPatches.js';
import type { EntryWindow } from '../entries/useEntryWindow.js';
import { number } from '../../frame/written.js';

/** Rows that are fetched one by one; more are left to the server. */
const mostRows = 2000;

interface Cell {
  readonly entry: string;
  readonly field: string;
  readonly given: Given;
}

export interface ActPlace {
  readonly register: RegisterView;
  /** The fields that are shown, in their order. */
  readonly fields: readonly FieldView[];
  readonly window: EntryWindow;
  readonly me: Me;
  /** True where the entries are shown as the person has arranged them. */
  readonly arranged: boolean;
  /** True where only entries with one value, or those outside, are shown. */
  readonly some: boolean;
}

export function useBlockActs({ register, fields, window, me, arranged, some }: ActPlace) {
  const dispatch = useAppDispatch();
  const notice = useNotice();
  const attempt = useTry();
  const actDone = useActDone();
  const [writeBlock] = useWriteBlockMutation();
  const [insert] = useInsertEntriesMutation();
  const [remove] = useDeleteEntriesMutation();
  const total = window.total ?? 0;
  const { locale } = me.house;

  const draftedAs = (key: string, given: Given): Pick<Draft, 'text' | 'chosen'> => ({
    text: wordsOf(register.fields.find((field) => field.key === key)?.kind ?? 'text', given, locale),
    ...(given.chosen !== undefined && { chosen: given.chosen }),
  });
  const settle = (
    cells: readonly Cell[],
    { outcomes, entries, written }: BlockOutcome,
    made: readonly string[],
    top: number | undefined,
  ) => {
    const rowOf = new Map([...new Set(cells.map(({ entry }) => entry))].map((entry, at) => [entry, at] as const));
    const refusals = outcomes.flatMap(({ entry, field, verdict }, at): Draft[] =>
      verdict.verdict === 'refused'
        ? [
            {
              registerId: register.id,
              entryId: entry,
              field,
              ...draftedAs(field, cells[at]!.given),
              state: 'refused',
              message: verdict.message,
              suggestions: verdict.suggestions,
              ...(top !== undefined && { row: top + rowOf.get(entry)! }),
              ...(verdict.mayConfirm && { mayConfirm: true }),
            },
          ]
        : [],
    );
    if (written.length + made.length + refusals.length > 0)
      dispatch(
        did({ registerId: register.id, act: { act: 'wrote', cells: written, refused: refusals, ...(made.length > 0 && { made }) } }),
      );
    for (const entry of entries) updateEntry(dispatch, store.getState(), register.id, entry.id, asGiven(entry));
    for (const { entry, field, verdict } of outcomes) if (verdict.verdict !== 'refused') dispatch(settled({ entryId: entry, field }));
    for (const draft of refusals) dispatch(drafted(draft));
    const refused = refusals.length;
    const corrected = outcomes.filter(({ verdict }) => verdict.verdict === 'taken' && verdict.corrected).length;
    notice(refused > 0 ? 'refused' : 'done', outcomeWords({ taken: outcomes.length - refused, corrected, refused, passedOver: 0 }));
  };

  /** `made`: new entries that the cells stand in; `top`: the row of the first of their entries. */
  const write = async (cells: readonly Cell[], made: readonly string[] = [], top?: number) => {
    if (cells.length === 0) return notice('done', 'There was nothing to change.');
    const outcome = await attempt(
      writeBlock({
        registerId: register.id,
        cells: cells.map(({ entry, field, given }) => ({ entry, field, ...givenMembers(given) })),
      }).unwrap(),
    );
    if (outcome) settle(cells, outcome, made, top);
  };

  const act = async (dto: EntryActDto) => {
    const view = await attempt(dispatch(doAct(register.id, dto)));
    if (view) actDone(view);
  };

  /** The block as the server is told of it: from one entry to another, an end left out is that of the sheet. */
  const blockDto = async ({ top, bottom, left, right }: Block) => {
    const [first] = top === 0 ? [] : await window.rows(top, top);
    const [last] = bottom >= total - 1 ? [] : await window.rows(bottom, bottom);
    return {
      fields: fields.slice(left, right + 1).map(({ key }) => key),
      ...(first && { first: first.id }),
      ...(last && { last: last.id }),
      arranged,
    };
  };
  const sizeOf = ({ top, bottom, left, right }: Block) => ({ rows: Math.min(bottom, total - 1) - top + 1, columns: right - left + 1 });
  const isSmall = (rows: number, columns: number) => rows <= mostRows && rows * columns <= mostAtOnce;

  /** True when a filter of the moment keeps the server from knowing the block; said. */
  const tooMany = (rows: number, columns: number): boolean => {
    const most = some ? mostRows : mostCells;
    const size = some ? rows : rows * columns;
    if (size <= most) return false;
    notice(
      'refused',
      some
        ? `${number.format(rows)} rows are chosen while only some entries are shown; ${number.format(mostRows)} can be changed so at once. Show all entries first.`
        : `The block has ${number.format(size)} cells; ${number.format(mostCells)} can be changed at once. Do it in parts.`,
    );
    return true;
  };

  const cellsOf = (what: WritingAct, own: readonly FieldView[], rows: readonly EntryView[]): Cell[] => {
    const givenAt = givenBy(what, own, rows.length, locale);
    return rows.flatMap((entry, row) =>
      own.flatMap((field) => {
        const given = givenAt(row, field, entry.cells[field.key] ?? '');
        return given ? [{ entry: entry.id, field: field.key, given }] : [];
      }),
    );
  };

  /** Does an act over a block: at once where it is small, else as an act of the server. */
  const over = async (
    block: Block,
    small: (own: readonly FieldView[], rows: readonly EntryView[]) => WritingAct,
    large: Omit<EntryActDto, 'block'>,
  ) => {
    const { rows, columns } = sizeOf(block);
    if (rows < 1 || tooMany(rows, columns)) return;
    if (isSmall(rows, columns)) {
      const own = fields.slice(block.left, block.right + 1);
      const entries = await window.rows(block.top, block.top + rows - 1);
      return write(cellsOf(small(own, entries), own, entries), [], block.top);
    }
    await act({ ...large, block: await blockDto(block) });
  };

  const clear = (block: Block) => over(block, () => ({ does: 'clear' }), { does: 'clear' });

  const fill = (block: Block, how: FillAct['how']) => {
    if (block.top >= Math.min(block.bottom, total - 1)) {
      notice('refused', 'Choose the cell to fill down together with those below it: hold Shift and press the down arrow.');
      return Promise.resolve();
    }
    const given = (own: readonly FieldView[], rows: readonly EntryView[]) =>
      Object.fromEntries(
        own.map(({ key }) => [
          key,
          givenIn(
            how,
            rows.map(({ cells }) => cells[key] ?? ''),
          ),
        ]),
      );
    return over(block, (own, rows) => ({ does: 'fill', how, given: given(own, rows) }), { does: 'fill', how });
  };

  const replace = async (own: readonly FieldView[], search: Search, by: string) => {
    const what: ReplaceAct = { does: 'replace', ...search, by };
    if (isSmall(total, own.length) && !some) return write(cellsOf(what, own, await window.rows(0, total - 1)));
    await act({ does: 'replace', search, by, fields: own.map(({ key }) => key) });
  };

  const rowsFor = async (
    first: number,
    count: number,
    mayInsert: boolean,
  ): Promise<{ rows: EntryView[]; made: readonly string[] } | undefined> => {
    const there = first < total ? await window.rows(first, Math.min(total - 1, first + count - 1)) : [];
    const missing = count - there.length;
    if (missing <= 0 || !mayInsert) return { rows: there, made: [] };
    const made = await attempt(insert({ registerId: register.id, count: missing }).unwrap());
    return made && { rows: [...there, ...made.entries.map((id): EntryView => ({ id, version: 1, cells: {} }))], made: made.entries };
  };

  /** Pastes texts from a place on; rows beyond the last one become new entries where there may be some. */
  const paste = async (texts: string[][], at: Place, mayInsert: boolean) => {
    if (texts.length === 0) return;
    const columns = Math.max(...texts.map((row) => row.length));
    const beyond = columns - (fields.length - at.column);
    if (beyond > 0)
      return notice(
        'refused',
        `The block is ${beyond} ${beyond === 1 ? 'column' : 'columns'} wider than the sheet from here. Begin further left, or copy fewer columns.`,
      );
    if (tooMany(texts.length, columns)) return;
    const own = fields.slice(at.column, at.column + columns);
    if (texts.length <= 1000 && texts.length * columns <= mostAtOnce) {
      const place = await rowsFor(at.row, texts.length, mayInsert);
      return place && write(cellsOf({ does: 'paste', texts }, own, place.rows), place.made, at.row);
    }
    const reach = mayInsert ? texts.length : Math.min(texts.length, total - at.row);
    if (at.row >= total) return act({ does: 'paste', texts, below: true, fields: own.map(({ key }) => key) });
    const block = await blockDto({
      top: at.row,
      bottom: Math.min(total - 1, at.row + reach - 1),
      left: at.column,
      right: at.column + columns - 1,
    });
    await act({ does: 'paste', texts: texts.slice(0, reach), block });
  };

  const deleteRows = async ({ top, bottom }: Block) => {
    const last = Math.min(bottom, total - 1);
    if (tooMany(last - top + 1, 1)) return;
    if (last - top < mostRows) {
      const rows = await window.rows(top, last);
      const below = some || arranged || last + 1 >= total ? undefined : (await window.rows(last + 1, last + 1))[0]?.id;
      const gone = rows.map(({ id }) => id);
      if (!(await attempt(remove({ registerId: register.id, entries: gone }).unwrap()))) return;
      dispatch(did({ registerId: register.id, act: { act: 'deleted', entries: gone, before: below } }));
      dispatch(dropped({ registerId: register.id, ids: gone }));
      return notice(
        'done',
        `${number.format(gone.length)} ${gone.length === 1 ? 'entry was' : 'entries were'} deleted. Ctrl Z brings ${gone.length === 1 ? 'it' : 'them'} back.`,
      );
    }
    const block = await blockDto({ top, bottom: last, left: 0, right: 0 });
    await act({ does: 'delete', block: { ...block, fields: [] } });
  };

  /** Tries refused cells again, with what was mended. */
  const tryAgain = (cells: readonly Cell[]) => write(cells);
  return { paste, clear, fill, replace, deleteRows, tryAgain };
}
export type BlockActs = ReturnType<typeof useBlockActs>;
