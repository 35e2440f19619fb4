// Sending an edited cell: shown at once, stored by the server, and kept as a draft when it is not taken.
import { withTexts, type Cells, type Given } from '@dellum/core';
import { givenMembers, type EntryView } from '@dellum/contract';
import { api } from '../../data/api.js';
import type { RequestProblem } from '../../data/problem.js';
import { passes } from '../../data/problem.js';
import { hasTurns, inTurn } from '../../data/inTurn.js';
import type { AppDispatch, RootState } from '../../data/store.js';
import { drafted, settled, type Draft } from '../../data/draftsSlice.js';
import { did } from './doneSlice.js';
import { entriesApi, updateEntry } from '../../data/entriesApi.js';
import { answered, sending, typingIn } from '../../data/newEntriesSlice.js';
import { asGiven, pend, rememberPatch, type Pended } from '../../data/recentPatches.js';

export interface CellEdit {
  readonly registerId: string;
  readonly entryId: string;
  readonly field: string;
  readonly given: Given;
  /** What was typed, or is shown of what was chosen. */
  readonly text: string;
  /** The cells to show until the server has answered: the edited one and what follows from it. */
  readonly expected: Cells;
  readonly before: Cells;
  readonly version: number;
  readonly confirmed?: boolean;
}

/** The fields that an edit changes: its own, and what follows from it. */
const changedBy = ({ field, expected, before }: CellEdit): string[] =>
  [...new Set([field, ...Object.keys(expected), ...Object.keys(before)])].filter((key) => key === field || expected[key] !== before[key]);

/** Shows the cells that an edit changes as it leaves them; others keep what they got meanwhile. */
const show = (edit: CellEdit) => (dispatch: AppDispatch, getState: () => RootState) =>
  updateEntry(dispatch, getState(), edit.registerId, edit.entryId, (entry) => ({
    ...entry,
    cells: withTexts(
      entry.cells,
      changedBy(edit).map((key) => [key, edit.expected[key] ?? ''] as const),
    ),
  }));

/** The draft that an edit becomes when the server does not take it. */
function draftOf(edit: CellEdit, problem: RequestProblem): Draft {
  const { registerId, entryId, field, text } = edit;
  const { chosen } = edit.given;
  const base = { registerId, entryId, field, text, ...(chosen !== undefined && { chosen }), message: problem.detail };
  if (passes(problem)) return { ...base, state: 'waiting', suggestions: [], version: edit.version };
  if (problem.current) return { ...base, state: 'conflict', suggestions: [problem.current.value, text], version: problem.current.version };
  return { ...base, state: 'refused', suggestions: problem.suggestions ?? [], ...(problem.mayConfirm && { mayConfirm: true }) };
}

/** By entry: the version that each field has from this browser's last answered edit of it. What one did oneself is no news. */
const ownVersions = new Map<string, ReadonlyMap<string, number>>();

/** So many entries are remembered; the ones edited longest ago go first. */
const mostRemembered = 500;

function remember(entryId: string, versions: ReadonlyMap<string, number>): void {
  ownVersions.delete(entryId);
  ownVersions.set(entryId, versions);
  if (ownVersions.size > mostRemembered) ownVersions.delete(ownVersions.keys().next().value!);
}

/**
 * Shows the edit at once and sends it when the edits of its entry before it are answered, as one that knows them;
 * returns the draft it became when it was not taken.
 */
export const sendEdit =
  (edit: CellEdit) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<Draft | undefined> => {
    dispatch(show(edit));
    const { registerId, entryId, field, version } = edit;
    // Whoever goes back to what they have filled corrects it: an act of its own, and the entry is begun.
    if (ownVersions.get(entryId)?.has(field)) dispatch(typingIn({ registerId, entryId: undefined }));
    const ofNew = getState().newEntries[registerId]?.typing === entryId;
    dispatch(sending({ registerId, entryId }));
    const pended = pend(entryId, Object.fromEntries(changedBy(edit).map((key) => [key, edit.expected[key] ?? null])), edit.before);
    try {
      return await inTurn(entryId, () =>
        dispatch(send({ ...edit, version: Math.max(version, ownVersions.get(entryId)?.get(field) ?? 0) }, ofNew, pended)),
      );
    } finally {
      pended.ended();
      dispatch(answered({ registerId, entryId }));
      if (!hasTurns(entryId)) {
        // The pages learn of a new entry when all that was typed into it so far is stored: none shows it half.
        if (isBegun(getState(), registerId, entryId, (entry) => entry.version > 0))
          dispatch(api.util.invalidateTags([{ type: 'Register', id: registerId }]));
      }
    }
  };

const isBegun = (state: RootState, registerId: string, entryId: string, like: (entry: EntryView) => boolean): boolean =>
  state.newEntries[registerId]?.begun.some(({ entry }) => entry.id === entryId && like(entry)) ?? false;

/** `ofNew`: the edit belongs to the beginning of a new entry, which is taken back as a whole. */
const send =
  (edit: CellEdit, ofNew: boolean, pended: Pended) =>
  async (dispatch: AppDispatch, getState: () => RootState): Promise<Draft | undefined> => {
    const { registerId, entryId, field, given, version, confirmed } = edit;
    const cell = { registerId, entryId, field, ...givenMembers(given), ...(confirmed && { confirmed }) };
    const begins = isBegun(getState(), registerId, entryId, (entry) => entry.version === 0);
    const request = begins
      ? dispatch(entriesApi.endpoints.beginEntry.initiate(cell))
      : dispatch(entriesApi.endpoints.editCell.initiate({ ...cell, version }));
    try {
      const { entry, written = [] } = await request.unwrap();
      pended.ended();
      if (begins) dispatch(did({ registerId, act: { act: 'made', entries: [entryId], before: undefined } }));
      else if (written.length > 0 && !ofNew) dispatch(did({ registerId, act: { act: 'wrote', cells: written } }));
      dispatch(settled({ entryId, field }));
      remember(
        entryId,
        new Map([
          ...(ownVersions.get(entryId) ?? []),
          ...[...changedBy(edit), ...written.map((cell) => cell.field)].map((key) => [key, entry.version] as const),
        ]),
      );
      rememberPatch(entryId, entry.version, Object.fromEntries(changedBy(edit).map((key) => [key, entry.cells[key] ?? null])));
      updateEntry(dispatch, getState(), registerId, entryId, asGiven(entry));
      return undefined;
    } catch (error) {
      const draft = draftOf(edit, error as RequestProblem);
      const newer = draft.state === 'conflict' ? { [field]: draft.suggestions[0]! } : {};
      updateEntry(dispatch, getState(), registerId, entryId, pended.refused(newer));
      dispatch(drafted(draft));
      return draft;
    } finally {
      request.reset();
    }
  };
