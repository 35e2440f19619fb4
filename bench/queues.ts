// Waiting lines: work that comes at random to some places, each of which does one thing at a time.

/** Random numbers that are the same in each run: the next state of a 32-bit generator (mulberry32, public domain), from 0 to 1. */
export function randomFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

const exponential = (random: () => number, mean: number): number => -mean * Math.log(1 - random());

export interface Line {
  /** Work that comes in a second. */
  readonly rate: number;
  /** Milliseconds that one piece takes on average; they are spread exponentially. */
  readonly mean: number;
  readonly places: number;
}

/**
 * What pieces of work wait before they are begun, milliseconds, sorted: each goes to the place that is free first (Kiefer and Wolfowitz, On
 * the theory of queues with many servers, 1955). The first tenth, in which the line fills, is left out.
 */
export function waits({ rate, mean, places }: Line, pieces = 60_000): Float64Array {
  const random = randomFrom(7);
  const free = new Float64Array(places);
  const found = new Float64Array(pieces);
  let now = 0;
  for (let piece = 0; piece < pieces; piece++) {
    now += exponential(random, 1000 / rate);
    let first = 0;
    for (let place = 1; place < places; place++) if (free[place]! < free[first]!) first = place;
    found[piece] = Math.max(0, free[first]! - now);
    free[first] = Math.max(now, free[first]!) + exponential(random, mean);
  }
  return found.slice(pieces / 10).sort();
}

/** The mean wait by Erlang's formula for the same line (A. K. Erlang, 1917); milliseconds. */
export function erlangWait({ rate, mean, places }: Line): number {
  const load = (rate * mean) / 1000;
  // The loss of a line that nobody waits in, place by place; from it the chance that one waits.
  let loss = 1;
  for (let place = 1; place <= places; place++) loss = (load * loss) / (place + load * loss);
  const waiting = loss / (1 - (load / places) * (1 - loss));
  return (waiting * mean) / (places - load);
}

/** The fewest places at which no more than a hundredth of the work waits longer than `longest` milliseconds. */
export function placesFor({ rate, mean }: Omit<Line, 'places'>, longest: number): number {
  let places = Math.floor((rate * mean) / 1000) + 1;
  for (;;) {
    const found = waits({ rate, mean, places });
    if (found[Math.floor(found.length * 0.99)]! <= longest) return places;
    places += Math.max(1, Math.floor(places / 50));
  }
}
