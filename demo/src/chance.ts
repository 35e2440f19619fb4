// Chance that comes out the same each time.

/** A generator of numbers from 0 up to 1 (mulberry32, public domain, T. Ettinger 2017). */
export function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Picks by weight. */
export function pick<T>(random: () => number, options: readonly (readonly [T, number])[]): T {
  let left = random() * options.reduce((sum, [, weight]) => sum + weight, 0);
  for (const [option, weight] of options) {
    left -= weight;
    if (left < 0) return option;
  }
  return options.at(-1)![0];
}
