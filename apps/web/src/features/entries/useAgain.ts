// Taking back the last act on an entry sheet, and doing it again.
import { useNotice, useTry } from '../../frame/useNotice.js';
import { store, useAppDispatch, useAppSelector } from '../../data/store.js';
import { didAgain, isRefusal, passedOver, tookBack, type DoneAct } from './doneSlice.js';
import { drafted, draftKey, settled, settledAll, type Draft } from '../../data/draftsSlice.js';
import { dropped } from '../../data/newEntriesSlice.js';
import { allAnswered, underWay } from './inFlight.js';
import { doAct } from '../../data/entryActsApi.js';
import { asGiven } from '../../data/recentPatches.js';
import { updateEntry, useDeleteEntriesMutation, useRestoreEntriesMutation, useTakeBackCellsMutation } from '../../data/entriesApi.js';

export interface Again {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  again(as: 'undo' | 'redo'): Promise<void>;
}

const cellsWords = (count: number) => `${count} ${count === 1 ? 'cell' : 'cells'}`;

/** The drafts that are kept as they were refused. */
function stillRefused(refused: readonly Draft[]): Draft[] {
  const { drafts } = store.getState();
  return refused.filter(({ entryId, field, text }) => drafts[draftKey(entryId, field)]?.text === text);
}

export function useAgain(registerId: string): Again {
  const dispatch = useAppDispatch();
  const done = useAppSelector((state) => state.done[registerId]);
  const [takeBackCells] = useTakeBackCellsMutation();
  const [restore] = useRestoreEntriesMutation();
  const [remove] = useDeleteEntriesMutation();
  const attempt = useTry();
  const notice = useNotice();

  const sayPassedOver = (count: number) => {
    if (count > 0)
      notice(
        'refused',
        `${cellsWords(count)} ${count === 1 ? 'stays as it is: it was' : 'stay as they are: they were'} changed since, or the entry is closed.`,
      );
  };

  /** Does the opposite of an act; returns what would turn it round once more, or undefined when it failed. */
  const turn = async (act: DoneAct, as: 'undo' | 'redo'): Promise<DoneAct | undefined> => {
    if (act.act === 'wrote') {
      const { made = [], gone = false, refused = [] } = act;
      // What was refused is taken back with the act, and kept again when it is done again.
      for (const draft of as === 'undo' ? stillRefused(refused) : refused) dispatch(as === 'undo' ? settled(draft) : drafted(draft));
      if (isRefusal(act)) return act;
      if (gone && !(await attempt(restore({ registerId, entries: made, before: undefined }).unwrap()))) return undefined;
      const outcome = await attempt(takeBackCells({ registerId, cells: act.cells }).unwrap());
      if (!outcome) return undefined;
      for (const entry of outcome.entries) updateEntry(dispatch, store.getState(), registerId, entry.id, asGiven(entry));
      sayPassedOver(outcome.changed);
      if (made.length === 0) return { act: 'wrote', cells: outcome.written, refused };
      if (!gone && !(await attempt(remove({ registerId, entries: made }).unwrap()))) return undefined;
      return { act: 'wrote', cells: outcome.written, refused, made, gone: !gone };
    }
    if (act.act === 'block') {
      const view = await attempt(dispatch(doAct(registerId, { does: 'back', of: act.id })));
      if (!view) return undefined;
      sayPassedOver(view.outcome.passedOver);
      return { act: 'block', id: view.id };
    }
    if (act.act === 'made') {
      if (!(await attempt(remove({ registerId, entries: act.entries }).unwrap()))) return undefined;
      dispatch(dropped({ registerId, ids: act.entries }));
      dispatch(settledAll(act.entries));
      return { ...act, act: 'deleted' };
    }
    return (await attempt(restore({ registerId, entries: act.entries, before: act.before }).unwrap())) && { ...act, act: 'made' };
  };

  const again = async (as: 'undo' | 'redo'): Promise<void> => {
    await allAnswered();
    const now = store.getState().done[registerId];
    const act = as === 'undo' ? now?.back.at(-1) : now?.again.at(-1);
    if (!act) return notice('done', as === 'undo' ? 'There is nothing of yours to undo on this sheet.' : 'There is nothing to redo.');
    // A refusal that was mended or left since is nothing to take back any more.
    if (as === 'undo' && act.act === 'wrote' && isRefusal(act) && stillRefused(act.refused ?? []).length === 0) {
      dispatch(passedOver({ registerId, as }));
      return again(as);
    }
    const turned = await underWay(turn(act, as));
    if (!turned || (turned.act === 'wrote' && turned.cells.length === 0 && (turned.refused ?? []).length === 0))
      dispatch(passedOver({ registerId, as }));
    else dispatch(as === 'undo' ? tookBack({ registerId, act: turned }) : didAgain({ registerId, act: turned }));
  };
  return { canUndo: (done?.back.length ?? 0) > 0, canRedo: (done?.again.length ?? 0) > 0, again };
}
