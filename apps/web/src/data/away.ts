// Said when a request finds that something does not answer; the live slice hears it.
import { createAction } from '@reduxjs/toolkit';

/** What does not answer: the server itself, its database, one of them that has too much to do, or its disk that is full. */
export type Away = 'server' | 'database' | 'busy' | 'disk';

export const isAway = createAction<Away | null>('live/isAway');
