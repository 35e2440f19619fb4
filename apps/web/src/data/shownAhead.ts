// Changes that are shown before the server has them. An answer that was asked for before the server had such a change
// and comes after it was shown would take it off the screen for a moment, and what is typed meanwhile would land in the
// wrong row; it is given the change here.

interface Ahead<Data> {
  /** Makes the change; data that have it already stay as they are. */
  readonly change: (data: Data) => Data;
  /** When the server answered; until then every answer may lack it. */
  settledAt: number;
}

export interface ShownAhead<Data> {
  /**
   * Notes a change of a register; what it returns says when the server answered that it has it, or that it came to nothing. Whatever is
   * asked for from that moment on has it, as the server keeps it.
   */
  note(registerId: string, change: (data: Data) => Data): { settled(answeredAt: number): void; dropped(): void };
  /** What was asked for at `askedAt`, with all that was shown ahead of it. */
  bring(registerId: string, askedAt: number, data: Data): Data;
  /** What was brought last, with all that is shown ahead of it now; undefined before anything was brought. */
  again(registerId: string): Data | undefined;
}

/** Answers do not stay under way for longer; milliseconds. */
const keptFor = 60_000;

export function shownAhead<Data>(): ShownAhead<Data> {
  const all = new Map<string, Ahead<Data>[]>();
  /** The answers that came last, as they were given. */
  const brought = new Map<string, { readonly askedAt: number; readonly data: Data }>();
  const keep = (registerId: string, which: (ahead: Ahead<Data>) => boolean) => {
    const left = all.get(registerId)?.filter(which) ?? [];
    if (left.length > 0) all.set(registerId, left);
    else all.delete(registerId);
  };
  const withAll = (registerId: string, askedAt: number, data: Data): Data =>
    (all.get(registerId) ?? []).reduce((known, { change, settledAt }) => (askedAt < settledAt ? change(known) : known), data);
  return {
    note(registerId, change) {
      const mine: Ahead<Data> = { change, settledAt: Infinity };
      const had = brought.get(registerId)?.askedAt ?? Infinity;
      keep(registerId, ({ settledAt }) => settledAt > Math.min(had, performance.now() - keptFor));
      all.set(registerId, [...(all.get(registerId) ?? []), mine]);
      return { settled: (answeredAt) => void (mine.settledAt = answeredAt), dropped: () => keep(registerId, (ahead) => ahead !== mine) };
    },
    bring: (registerId, askedAt, data) => {
      brought.set(registerId, { askedAt, data });
      return withAll(registerId, askedAt, data);
    },
    again: (registerId) => {
      const last = brought.get(registerId);
      return last && withAll(registerId, last.askedAt, last.data);
    },
  };
}
