// Taking back the last act on an entry sheet, and doing it again.
import { useNotice, useTry } from '../../frame/useNotice.js';
import { store, useAppDispatch, useAppSelector } from '../../store.js';
import { didAgain, passedOver, tookBack, type DoneAct } from './doneSlice.js';
import { allAnswered, underWay } from './inFlight.js';
import { doAct } from './entryActsApi.js';
import { asGiven, updateEntry, useDeleteEntriesMutation, useRestoreEntriesMutation, useTakeBackCellsMutation } from './entriesApi.js';

export interface Again {
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  again(as: 'undo' | 'redo'): Promise<void>;
}

const cellsWords = (count: number) => `${count} ${count === 1 ? 'cell' : 'cells'}`;

export function useAgain(registerId: string): Again {
  const dispatch = useAppDispatch();
  const done = useAppSelector((state) => state.done[registerId]);
  const [takeBackCells] = useTakeBackCellsMutation();
  const [restore] = useRestoreEntriesMutation();
  const [remove] = useDeleteEntriesMutation();
  const attempt = useTry();
  const notice = useNotice();

  const sayPassedOver = (count: number) => {
    if (count > 0) notice('refused', `${cellsWords(count)} ${count === 1 ? 'was' : 'were'} changed since and ${count === 1 ? 'stays' : 'stay'} as ${count === 1 ? 'it is' : 'they are'}.`);
  };

  /** Does the opposite of an act; returns what would turn it round once more, or undefined when it failed. */
  const turn = async (act: DoneAct): Promise<DoneAct | undefined> => {
    if (act.act === 'wrote') {
      const { made = [], gone = false } = act;
      if (gone && !(await attempt(restore({ registerId, entries: made, before: undefined }).unwrap()))) return undefined;
      const outcome = await attempt(takeBackCells({ registerId, cells: act.cells }).unwrap());
      if (!outcome) return undefined;
      for (const entry of outcome.entries) updateEntry(dispatch, store.getState(), registerId, entry.id, asGiven(entry));
      sayPassedOver(outcome.changed);
      if (made.length === 0) return { act: 'wrote', cells: outcome.written };
      if (!gone && !(await attempt(remove({ registerId, entries: made }).unwrap()))) return undefined;
      return { act: 'wrote', cells: outcome.written, made, gone: !gone };
    }
    if (act.act === 'deed') {
      const view = await attempt(dispatch(doAct(registerId, { deed: 'back', of: act.id })));
      if (!view) return undefined;
      sayPassedOver(view.outcome.passedOver);
      return { act: 'deed', id: view.id };
    }
    if (act.act === 'made') return (await attempt(remove({ registerId, entries: act.entries }).unwrap())) && { ...act, act: 'deleted' };
    return (await attempt(restore({ registerId, entries: act.entries, before: act.before }).unwrap())) && { ...act, act: 'made' };
  };

  const again = async (as: 'undo' | 'redo') => {
    await allAnswered();
    const now = store.getState().done[registerId];
    const act = as === 'undo' ? now?.back.at(-1) : now?.again.at(-1);
    if (!act) return notice('done', as === 'undo' ? 'There is nothing of yours to take back on this sheet.' : 'There is nothing to do again.');
    const turned = await underWay(turn(act));
    if (!turned || (turned.act === 'wrote' && turned.cells.length === 0)) dispatch(passedOver({ registerId, as }));
    else dispatch(as === 'undo' ? tookBack({ registerId, act: turned }) : didAgain({ registerId, act: turned }));
  };
  return { canUndo: (done?.back.length ?? 0) > 0, canRedo: (done?.again.length ?? 0) > 0, again };
}
