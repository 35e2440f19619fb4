// What came of an act on a block: said, and what was refused of it kept in its cells.
import type { ActOutcome } from '@dellum/core';
import type { EntryActView } from '@dellum/contract';
import { drafted } from '../../data/draftsSlice.js';
import { useAppDispatch } from '../../data/store.js';
import { useNotice } from '../../frame/useNotice.js';
import { number } from '../../frame/written.js';
import { did } from './doneSlice.js';

/** What came of a block, in a sentence. */
export function outcomeWords({
  taken,
  corrected,
  refused,
  passedOver,
}: Pick<ActOutcome, 'taken' | 'corrected' | 'refused' | 'passedOver'>): string {
  const words = [
    `${number.format(taken)} ${taken === 1 ? 'cell was' : 'cells were'} taken`,
    corrected > 0 && `${number.format(corrected)} under another spelling`,
    refused > 0 && `${number.format(refused)} refused and kept in ${refused === 1 ? 'its cell' : 'their cells'}`,
    passedOver > 0 && `${number.format(passedOver)} left as they are: changed by others since, or closed`,
  ];
  return `${words.filter(Boolean).join(', ')}.`;
}

/** Takes up an act of the server that is done: it can be undone, what was refused becomes drafts, and what came of it is said. */
export function useActDone(): (act: EntryActView) => void {
  const dispatch = useAppDispatch();
  const notice = useNotice();
  return ({ id, registerId, outcome }) => {
    dispatch(did({ registerId, act: { act: 'block', id } }));
    for (const { entry, mayConfirm, ...refused } of outcome.refusals)
      dispatch(drafted({ registerId, entryId: entry, state: 'refused', ...refused, ...(mayConfirm && { mayConfirm }) }));
    const kept =
      outcome.refused > outcome.refusals.length
        ? ` The first ${number.format(outcome.refusals.length)} of them are kept to be mended.`
        : '';
    notice(outcome.refused > 0 ? 'refused' : 'done', outcomeWords(outcome) + kept);
  };
}
