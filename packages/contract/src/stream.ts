// The live stream as browsers hear it.

/** Names of the events on the stream. `anew`: too much was missed, fetch everything. `day`: the house's day, told again and again. */
export const liveEvents = { change: 'change', anew: 'anew', ready: 'ready', place: 'place', day: 'day' } as const;

/** People say where they are at least this often; who is not heard of for twice as long has gone (milliseconds). */
export const placeEvery = 20_000;
