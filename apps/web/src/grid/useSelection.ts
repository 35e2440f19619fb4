// The active cell and the block that reaches from it.
import { useState } from 'react';
import { blockOf, type Block, type Place } from './models.js';

interface Selected {
  readonly active: Place;
  /** The moving end of the block; the active cell stays. */
  readonly focus: Place;
}

export interface Selection extends Selected {
  readonly block: Block;
  moveTo(place: Place): void;
  extendTo(place: Place): void;
  set(active: Place, focus: Place): void;
  /** Moves the whole selection by some rows, or columns. */
  shift(by: { readonly rows?: number; readonly columns?: number }): void;
}

const moved = ({ row, column }: Place, down: number, aside: number): Place => ({ row: row + down, column: column + aside });

export function useSelection(
  rows: number,
  columns: number,
  startRow: number,
  told: ((active: Place, block: Block) => void) | undefined,
): Selection {
  const [selected, setSelected] = useState<Selected>({ active: { row: startRow, column: 0 }, focus: { row: startRow, column: 0 } });
  const within = ({ row, column }: Place): Place => ({
    row: Math.max(0, Math.min(rows - 1, row)),
    column: Math.max(0, Math.min(columns - 1, column)),
  });
  const active = within(selected.active);
  const focus = within(selected.focus);
  const set = (nextActive: Place, nextFocus: Place) => {
    setSelected({ active: nextActive, focus: nextFocus });
    told?.(nextActive, blockOf(nextActive, nextFocus));
  };
  return {
    active,
    focus,
    block: blockOf(active, focus),
    set,
    moveTo: (place) => set(place, place),
    extendTo: (place) => set(active, place),
    shift: ({ rows: down = 0, columns: aside = 0 }) => set(moved(active, down, aside), moved(focus, down, aside)),
  };
}
