// Who else is on a sheet and where, and saying where one is oneself.
import { placeEvery } from '@dellum/contract';
import { useEffect, useMemo, useRef } from 'react';
import { api } from '../../data/api.js';
import { forgotten } from '../../live/placesSlice.js';
import { initials } from '../../frame/initials.js';
import { useAppDispatch, useAppSelector } from '../../data/store.js';

const liveApi = api.injectEndpoints({
  endpoints: (build) => ({
    tellPlace: build.mutation<null, { registerId: string; entry?: string; field?: string }>({
      query: (body) => ({ path: '/live/place', method: 'POST', body }),
    }),
  }),
});

/** A place is told when one has stayed there for a moment. */
const settleFor = 250;

export interface Here {
  /** The names of the others on the sheet. */
  readonly names: readonly string[];
  /** The initials of whoever is at a cell. */
  at(entryId: string, field: string): string | undefined;
  /** Says where one is oneself. */
  iAmAt(entryId: string | undefined, field: string | undefined): void;
}

export function useHere(registerId: string): Here {
  const dispatch = useAppDispatch();
  const places = useAppSelector((state) => state.places);
  const others = useMemo(
    () => Object.values(places).filter((place) => place.registerId === registerId && place.entry !== undefined),
    [places, registerId],
  );
  const cells = useMemo(() => new Map(others.map(({ entry, field, name }) => [`${entry} ${field}`, initials(name)])), [others]);
  const mine = useRef<{ entry: string | undefined; field: string | undefined }>({ entry: undefined, field: undefined });
  const timer = useRef<number>(undefined);
  const tell = useRef(() => undefined as void);
  useEffect(() => {
    tell.current = () => {
      const { entry, field } = mine.current;
      void dispatch(liveApi.endpoints.tellPlace.initiate({ registerId, ...(entry && { entry }), ...(entry && field && { field }) }));
    };
    const beat = window.setInterval(() => {
      dispatch(forgotten(Date.now() - 2 * placeEvery));
      if (mine.current.entry) tell.current();
    }, placeEvery);
    // A page that is closed has no time for an answer.
    const gone = () =>
      mine.current.entry &&
      navigator.sendBeacon('/api/v1/live/place', new Blob([JSON.stringify({ registerId })], { type: 'application/json' }));
    window.addEventListener('pagehide', gone);
    return () => {
      window.removeEventListener('pagehide', gone);
      window.clearInterval(beat);
      window.clearTimeout(timer.current);
      if (mine.current.entry === undefined) return;
      mine.current = { entry: undefined, field: undefined };
      tell.current();
    };
  }, [dispatch, registerId]);
  return {
    names: others.map(({ name }) => name).sort(),
    at: (entryId, field) => cells.get(`${entryId} ${field}`),
    iAmAt: (entry, field) => {
      if (mine.current.entry === entry && mine.current.field === field) return;
      mine.current = { entry, field };
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => tell.current(), settleFor);
    },
  };
}
