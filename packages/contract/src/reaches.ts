// How far acts reach. What browsers need is kept apart from the checks of the server, which they do not fetch for it.

/** Above so many cells a block is a job; below, it is written at once. */
export const mostAtOnce = 20_000;
/** The most cells and entries that one act reaches. */
export const mostCells = 1_000_000;
