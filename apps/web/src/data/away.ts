// Said when a request finds that something does not answer; the live slice hears it.
import { createAction } from '@reduxjs/toolkit';

/** What does not answer: the server itself, its database, or one of them that has too much to do. */
export type Away = 'server' | 'database' | 'busy';

export const isAway = createAction<Away | null>('live/isAway');
