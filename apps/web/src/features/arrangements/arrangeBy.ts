// Changing my arrangement: shown at once, kept by the server in the order in which the changes were made.
import type { Arrangement } from '@dellum/core';
import type { ArrangementView } from '@dellum/contract';
import { hasTurns, inTurn } from '../../data/inTurn.js';
import type { AppDispatch } from '../../data/store.js';
import { arrangementsApi } from '../../data/arrangementsApi.js';

/** Shows the arrangement at once; the entries follow when the server has arranged them. Rejects when it is not kept. */
export const arrangeBy =
  (registerId: string, arrangement: Arrangement) =>
  (dispatch: AppDispatch): Promise<void> => {
    dispatch(arrangementsApi.util.updateQueryData('arrangement', registerId, (view) => ({ ...view, arrangement })));
    return dispatch(
      inItsTurn(registerId, () =>
        dispatch(arrangementsApi.endpoints.keepArrangement.initiate({ registerId, arrangement }, { track: false })).unwrap(),
      ),
    );
  };

/** Brings the entries into order by what they hold now. */
export const arrangeAnew =
  (registerId: string) =>
  (dispatch: AppDispatch): Promise<void> =>
    dispatch(inItsTurn(registerId, () => dispatch(arrangementsApi.endpoints.arrangeAnew.initiate(registerId, { track: false })).unwrap()));

/**
 * Sends a change in its turn. What the server answers is shown unless a later change of mine is on its way; a failure brings back what is
 * kept.
 */
const inItsTurn =
  (registerId: string, send: () => Promise<ArrangementView>) =>
  async (dispatch: AppDispatch): Promise<void> => {
    const key = `arrangement/${registerId}`;
    try {
      const kept = await inTurn(key, send);
      if (!hasTurns(key)) dispatch(arrangementsApi.util.updateQueryData('arrangement', registerId, () => kept));
    } catch (error) {
      if (!hasTurns(key)) dispatch(arrangementsApi.util.invalidateTags([{ type: 'Arrangement', id: registerId }]));
      throw error;
    }
  };
