/** Nothing is to be done: a thread that is asked for it has loaded what it needs by then. */
export const ready = (): void => undefined;
