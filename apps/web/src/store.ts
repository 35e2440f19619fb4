// The store: server data in the API's cache, drafts and notices in slices.
import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api/api.js';
import { doneSlice } from './features/entries/doneSlice.js';
import { draftsSlice, keepDrafts } from './features/entries/draftsSlice.js';
import { keepNewEntries, newEntriesSlice } from './features/entries/newEntriesSlice.js';
import { actsSlice } from './features/entries/entryActsApi.js';
import { progressSlice } from './features/figures/progressSlice.js';
import { halfMadeSlice } from './frame/halfMadeSlice.js';
import { noticesSlice } from './frame/noticesSlice.js';
import { liveSlice } from './live/liveSlice.js';
import { placesSlice } from './live/placesSlice.js';

export const store = configureStore({
  reducer: { [api.reducerPath]: api.reducer, drafts: draftsSlice.reducer, halfMade: halfMadeSlice.reducer, newEntries: newEntriesSlice.reducer, done: doneSlice.reducer, acts: actsSlice.reducer, notices: noticesSlice.reducer, live: liveSlice.reducer, places: placesSlice.reducer, figureProgress: progressSlice.reducer },
  middleware: (defaults) => defaults().concat(api.middleware),
});
keepDrafts(store);
keepNewEntries(store);

export type RootState = ReturnType<typeof store.getState>;
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();
