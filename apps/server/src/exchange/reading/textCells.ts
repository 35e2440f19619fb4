// The cells of a row of texts. A map for each of a million rows costs more than all that is done with them.
import type { CameBack } from '@dellum/core';
import { mostColumns } from './models.js';

type Visit = (cell: CameBack, at: number, cells: TextCells) => void;

/** By column, counted from 0; blank ones, and those too far to the right, are not there. */
export class TextCells implements ReadonlyMap<number, CameBack> {
  readonly size: number;

  constructor(private readonly texts: readonly string[]) {
    let size = 0;
    const end = Math.min(texts.length, mostColumns);
    for (let at = 0; at < end; at++) if (texts[at] !== '') size += 1;
    this.size = size;
  }

  has(at: number): boolean {
    return at < mostColumns && (this.texts[at] ?? '') !== '';
  }
  get(at: number): CameBack | undefined {
    return this.has(at) ? { is: 'text', text: this.texts[at]! } : undefined;
  }
  forEach(visit: Visit): void {
    const end = Math.min(this.texts.length, mostColumns);
    for (let at = 0; at < end; at++) {
      const text = this.texts[at]!;
      if (text !== '') visit({ is: 'text', text }, at, this);
    }
  }

  *keys(): MapIterator<number> {
    for (let at = 0; at < this.texts.length; at++) if (this.has(at)) yield at;
  }
  *values(): MapIterator<CameBack> {
    for (const at of this.keys()) yield this.get(at)!;
  }
  *entries(): MapIterator<[number, CameBack]> {
    for (const at of this.keys()) yield [at, this.get(at)!];
  }
  [Symbol.iterator](): MapIterator<[number, CameBack]> {
    return this.entries();
  }
}

/** How many of the texts are too far to the right to be read. */
export function beyondIn(texts: readonly string[]): number {
  let beyond = 0;
  for (let at = mostColumns; at < texts.length; at++) if (texts[at] !== '') beyond += 1;
  return beyond;
}
