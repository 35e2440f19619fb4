// Pasting and clearing blocks: judged as a whole by the server; what is refused stays in its cell as a draft.
import type { BlockOutcome, EntryView, FieldView, RegisterView } from '@dellum/contract';
import { useNotice, useTry } from '../../frame/useNotice.js';
import { fromClipboard, type Block, type Place } from '../../grid/index.js';
import { did } from '../entries/doneSlice.js';
import { drafted, settled } from '../entries/draftsSlice.js';
import { updateEntry, useInsertEntriesMutation, useWriteBlockMutation } from '../entries/entriesApi.js';
import type { EntryWindow } from '../entries/useEntryWindow.js';
import { store, useAppDispatch } from '../../store.js';

const mostCells = 20_000;

export function usePaste(register: RegisterView, window: EntryWindow) {
  const dispatch = useAppDispatch();
  const notice = useNotice();
  const attempt = useTry();
  const [writeBlock] = useWriteBlockMutation();
  const [insert] = useInsertEntriesMutation();

  const settle = (cells: readonly { entry: string; field: string; text: string }[], { outcomes, entries, written }: BlockOutcome) => {
    if (written.length > 0) dispatch(did({ registerId: register.id, act: { act: 'wrote', cells: written } }));
    for (const entry of entries) updateEntry(dispatch, store.getState(), register.id, entry.id, (known) => (known.version > entry.version ? known : entry));
    outcomes.forEach(({ entry, field, verdict }, at) => {
      const where = { registerId: register.id, entryId: entry, field };
      if (verdict.verdict === 'refused') dispatch(drafted({ ...where, text: cells[at]!.text, state: 'refused', message: verdict.message, suggestions: verdict.suggestions, ...(verdict.mayConfirm && { mayConfirm: true }) }));
      else dispatch(settled(where));
    });
    const refused = outcomes.filter(({ verdict }) => verdict.verdict === 'refused').length;
    const corrected = outcomes.filter(({ verdict }) => verdict.verdict === 'taken' && verdict.corrected).length;
    const taken = outcomes.length - refused;
    const words = [`${taken} ${taken === 1 ? 'cell was' : 'cells were'} taken`, corrected > 0 && `${corrected} under another spelling`, refused > 0 && `${refused} refused and kept in ${refused === 1 ? 'its cell' : 'their cells'}`];
    notice(refused > 0 ? 'refused' : 'done', `${words.filter(Boolean).join(', ')}.`);
  };

  const write = async (cells: { entry: string; field: string; text: string }[]) => {
    if (cells.length === 0) return;
    if (cells.length > mostCells) return notice('refused', `The block has ${cells.length.toLocaleString('en-GB')} cells; ${mostCells.toLocaleString('en-GB')} can be pasted at once. Paste it in parts.`);
    const outcome = await attempt(writeBlock({ registerId: register.id, cells }).unwrap());
    if (outcome) settle(cells, outcome);
  };

  const rowsFor = async (first: number, count: number, mayInsert: boolean): Promise<EntryView[] | undefined> => {
    const total = window.total ?? 0;
    const there = await window.rows(first, Math.min(total - 1, first + count - 1));
    const missing = count - there.length;
    if (missing <= 0 || !mayInsert) return there;
    const made = await attempt(insert({ registerId: register.id, count: missing }).unwrap());
    return made && [...there, ...made.entries.map((id): EntryView => ({ id, version: 1, cells: {} }))];
  };

  const paste = async (text: string, at: Place, mayInsert: boolean) => {
    const block = fromClipboard(text);
    if (block.length === 0) return;
    const fields = register.fields.slice(at.column);
    const beyond = Math.max(...block.map((row) => row.length)) - fields.length;
    if (beyond > 0) return notice('refused', `The block is ${beyond} ${beyond === 1 ? 'column' : 'columns'} wider than the sheet from here. Begin further left, or copy fewer columns.`);
    if (block.length > 1000) return notice('refused', 'More than 1,000 rows cannot be pasted at once yet. Paste them in parts.');
    const rows = await rowsFor(at.row, block.length, mayInsert);
    if (rows) await write(block.slice(0, rows.length).flatMap((texts, row) => texts.map((cell, column) => ({ entry: rows[row]!.id, field: fields[column]!.key, text: cell }))));
  };

  const clear = async ({ top, bottom, left, right }: Block) => {
    const rows = await window.rows(top, Math.min(bottom, (window.total ?? 1) - 1));
    const cells = rows.flatMap((entry) => register.fields.slice(left, right + 1).filter(({ key }) => key in entry.cells).map((field: FieldView) => ({ entry: entry.id, field: field.key, text: '' })));
    await write(cells);
  };
  return { paste, clear };
}
