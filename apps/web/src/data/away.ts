// Said when a request finds that something does not answer; the live slice hears it.
import { createAction } from '@reduxjs/toolkit';

/** What does not answer: the server itself, or its database. */
export type Away = 'server' | 'database';

export const isAway = createAction<Away | null>('live/isAway');
