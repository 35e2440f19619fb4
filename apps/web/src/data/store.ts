// The store: server data in the API's cache, and what features keep here in slices that they register themselves.
import { combineSlices, configureStore, type Reducer } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api.js';
import { keepInTab } from './keptInTab.js';
import { newsMiddleware } from './news.js';

/** What is in the store. A slice adds itself here by name beside its `registered`, so that whoever reads it has imported it. */
export interface RootState {
  readonly [api.reducerPath]: ReturnType<typeof api.reducer>;
}

const slices = combineSlices(api);

export const store = configureStore({
  // The slices that register later are in the state from then on.
  reducer: slices as unknown as Reducer<RootState>,
  middleware: (defaults) => defaults().concat(newsMiddleware, api.middleware),
  // What is shown ahead of the server is there for the next key, not for the next picture, before which several keys may come.
  enhancers: (defaults) => defaults({ autoBatch: { type: 'tick' } }),
});

/** Puts a slice into the store under its own name; `kept`: a reload of the browser tab does not lose it. */
export function registered<Own extends { readonly name: keyof RootState }>(
  slice: Own & { readonly reducer: Reducer<RootState[Own['name']]> },
  kept?: 'kept',
): Own {
  slices.inject({ reducerPath: slice.name, reducer: slice.reducer });
  store.dispatch({ type: `${slice.name}/registered` });
  if (kept) keepInTab(store, slice.name);
  return slice;
}

export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
