// Sending an edited cell: shown at once, stored by the server, and kept as a draft when it is not taken.
import type { RequestProblem } from '../../api/problem.js';
import { passes } from '../../api/problem.js';
import type { AppDispatch, RootState } from '../../store.js';
import { drafted, settled, type Draft } from './draftsSlice.js';
import { entriesApi, updateEntry } from './entriesApi.js';
import { rememberPatch } from './recentPatches.js';

export interface CellEdit {
  readonly registerId: string;
  readonly entryId: string;
  readonly field: string;
  /** What was typed. */
  readonly text: string;
  /** What to show until the server has answered. */
  readonly expected: string;
  readonly held: string;
  readonly version: number;
}

const show = (edit: CellEdit, value: string) => (dispatch: AppDispatch, getState: () => RootState) =>
  updateEntry(dispatch, getState(), edit.registerId, edit.entryId, (entry) => {
    const { [edit.field]: _old, ...rest } = entry.cells;
    return { ...entry, cells: value === '' ? rest : { ...rest, [edit.field]: value } };
  });

/** The draft that an edit becomes when the server does not take it. */
function draftOf(edit: CellEdit, problem: RequestProblem): Draft {
  const { registerId, entryId, field, text } = edit;
  const base = { registerId, entryId, field, text, message: problem.detail };
  if (passes(problem)) return { ...base, state: 'waiting', suggestions: [], version: edit.version };
  if (problem.current) return { ...base, state: 'conflict', suggestions: [problem.current.value, text], version: problem.current.version };
  return { ...base, state: 'refused', suggestions: problem.suggestions ?? [] };
}

/** Sends the edit; returns the draft it became when it was not taken. */
export const sendEdit = (edit: CellEdit) => async (dispatch: AppDispatch, getState: () => RootState): Promise<Draft | undefined> => {
  dispatch(show(edit, edit.expected));
  const { registerId, entryId, field, text, version } = edit;
  const request = dispatch(entriesApi.endpoints.editCell.initiate({ registerId, entryId, field, text, version }));
  try {
    const { entry } = await request.unwrap();
    dispatch(settled({ entryId, field }));
    rememberPatch(entryId, entry.version, { [field]: entry.cells[field] ?? null });
    updateEntry(dispatch, getState(), registerId, entryId, (known) => (known.version > entry.version ? known : entry));
    return undefined;
  } catch (error) {
    const draft = draftOf(edit, error as RequestProblem);
    dispatch(show(edit, draft.state === 'conflict' ? draft.suggestions[0]! : edit.held));
    dispatch(drafted(draft));
    return draft;
  } finally {
    request.reset();
  }
};
