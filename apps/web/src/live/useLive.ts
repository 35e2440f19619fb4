// Hears the live stream and brings the cache up to date.
import type { Change, Me } from '@dellum/contract';
import { useEffect, useRef } from 'react';
import { api, everyTag } from '../data/api.js';
import { patchEntry } from '../data/entriesApi.js';
import { sessionApi } from '../data/sessionApi.js';
import { store, useAppDispatch, type AppDispatch } from '../data/store.js';
import { placed } from './placesSlice.js';
import { streamIs } from './liveSlice.js';
import { hearLive } from './stream.js';

/** Counts follow many edits at once: they are fetched again at most this often. */
const countsEvery = 700;

function follower(dispatch: AppDispatch) {
  let countsDue: number | undefined;
  const countsSoon = () => {
    countsDue ??= window.setTimeout(() => {
      countsDue = undefined;
      dispatch(api.util.invalidateTags(['Lineage', 'Counts']));
    }, countsEvery);
  };
  return (change: Change) => {
    switch (change.kind) {
      case 'cells':
        patchEntry(dispatch, store.getState(), change);
        countsSoon();
        break;
      case 'register':
        dispatch(api.util.invalidateTags([{ type: 'Register', id: change.registerId }, 'Ranges', 'History']));
        countsSoon();
        break;
      case 'carry':
        if (change.done === 0 || change.done >= change.total)
          dispatch(api.util.invalidateTags([{ type: 'Register', id: change.registerId }]));
        countsSoon();
        break;
      case 'build':
        dispatch(api.util.invalidateTags(['Build', 'Me', 'Lineage', 'Counts', 'Ranges', 'Linked', 'Form']));
        break;
      case 'catalog':
        dispatch(
          api.util.invalidateTags([{ type: 'Catalog', id: change.catalogId }, 'Lineage', 'Counts', 'History', 'Upkeep', 'Requests']),
        );
        break;
      case 'requests':
        dispatch(api.util.invalidateTags(['Requests']));
        break;
      case 'figures':
        dispatch(api.util.invalidateTags(['Figures']));
        break;
      case 'adoptions':
        dispatch(api.util.invalidateTags(['Adoptions']));
        break;
      case 'upkeep':
        dispatch(api.util.invalidateTags(['Upkeep']));
        break;
      case 'slips':
        dispatch(api.util.invalidateTags(['Slips', 'Linked']));
        break;
      case 'people':
        dispatch(api.util.invalidateTags(['People', 'Me']));
        break;
    }
  };
}

/** Keeps everything on screen true for as long as the person is signed in. */
export function useLive(me: Me): void {
  const dispatch = useAppDispatch();
  const scope = `${me.house.key}.${me.role}.${me.id}`;
  const known = useRef(scope);
  useEffect(() => {
    // In another role one sees other things, and may do others: all is asked for anew.
    if (known.current !== scope) dispatch(api.util.invalidateTags([...everyTag]));
    known.current = scope;
    const follow = follower(dispatch);
    let missed = false;
    return hearLive(scope, (heard) => {
      if (heard.kind === 'place') return void dispatch(placed({ ...heard.place, at: Date.now() }));
      if (heard.kind === 'day') {
        // A page that stayed open over midnight: what is offered, and what today means, go by the new day.
        const known = sessionApi.endpoints.me.select()(store.getState()).data?.house.today;
        if (known !== undefined && known !== heard.day) dispatch(api.util.invalidateTags(['Me']));
        return;
      }
      if (heard.kind === 'change') follow(heard.change);
      if (heard.kind === 'anew') dispatch(api.util.invalidateTags([...everyTag]));
      if (heard.kind === 'away') {
        missed = true;
        dispatch(api.util.invalidateTags(['Me']));
      }
      // A stream that ends may mean that the session has ended: asking who one is shows it.
      if (heard.kind === 'live' && missed) {
        missed = false;
        dispatch(api.util.invalidateTags(['Me', 'Lineage', 'Counts']));
      }
      dispatch(streamIs(heard.kind === 'away' ? 'away' : 'live'));
    });
  }, [dispatch, scope]);
}
