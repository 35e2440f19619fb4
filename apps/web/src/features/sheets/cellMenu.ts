// The menu of a cell of an entry sheet: the acts that make sense there, each with its key.
import { picksFrom } from '@dellum/core';
import type { FieldView } from '@dellum/contract';
import type { RefObject } from 'react';
import { fromBoth, isSingle, type Block, type GridHandle, type MenuLine, type Place } from '../../grid/index.js';
import type { Again } from '../entries/useAgain.js';

export interface CellMenuPlace {
  readonly place: Place;
  readonly block: Block;
  /** Rows that are entries; the one after them is blank. */
  readonly total: number;
  readonly field: FieldView | undefined;
  readonly enters: boolean;
  /** Entries can be put in between. */
  readonly inserts: boolean;
  readonly about: { why(): void; readonly alike: (() => void) | undefined } | undefined;
  readonly grid: RefObject<GridHandle | null>;
  readonly again: Again;
  insertAt(where: 'above' | 'below', row: number): void;
  clear(block: Block): void;
  deleteRows(block: Block): void;
  fill(block: Block, how: 'same' | 'series'): void;
  copy(block: Block): string | Promise<string>;
  paste(texts: string[][], at: Place): void;
  /** Opens the field with its rule; undefined for those who do not design. */
  readonly openRule: (() => void) | undefined;
}

/** What lies on the clipboard, as text and as a table; what cannot be read is nothing. */
async function clipboardCells(): Promise<string[][]> {
  const [item] = await navigator.clipboard.read().catch(() => []);
  const text = async (type: string) => (item?.types.includes(type) ? (await item.getType(type)).text() : '');
  return fromBoth(await text('text/plain'), await text('text/html'));
}

export function cellMenu(at: CellMenuPlace): MenuLine[] {
  const { place, block, total, field, enters, inserts, about, grid, again, openRule } = at;
  if (!field) return [];
  const rows = Math.min(block.bottom, total - 1) - block.top + 1;
  const isBlank = place.row >= total;
  const copied = async () => navigator.clipboard.writeText(await at.copy(block));
  const edit = picksFrom(field.rule) || field.kind === 'date' ? 'Choose or edit' : 'Edit';
  return [
    ...(enters ? [{ words: edit, key: 'Enter', act: () => grid.current?.open(place) }] : []),
    { words: 'Copy', key: 'Ctrl C', apart: enters, off: isBlank, act: () => void copied() },
    ...(enters
      ? [
          {
            words: 'Paste',
            key: 'Ctrl V',
            act: () => void clipboardCells().then((texts) => at.paste(texts, { row: block.top, column: block.left })),
          },
          { words: 'Clear', key: 'Delete', off: isBlank, act: () => at.clear(block) },
          { words: 'Fill down', key: 'F8', off: isSingle(block) || rows < 2, act: () => at.fill(block, 'same') },
          { words: 'Fill down as a series', key: 'Shift F8', off: isSingle(block) || rows < 2, act: () => at.fill(block, 'series') },
          { words: 'Undo', key: 'Ctrl Z', off: !again.canUndo, act: () => void again.again('undo') },
        ]
      : []),
    ...(enters && inserts
      ? [
          { words: 'New entry above', key: 'Insert', apart: true, off: isBlank, act: () => at.insertAt('above', place.row) },
          { words: 'New entry below', key: 'Alt Insert', off: isBlank, act: () => at.insertAt('below', place.row) },
        ]
      : []),
    ...(enters
      ? [
          {
            words: rows > 1 ? `Delete ${rows} entries` : 'Delete the entry',
            key: 'Ctrl Delete',
            off: isBlank,
            harms: true,
            act: () => at.deleteRows(block),
          },
        ]
      : []),
    { words: 'Only entries with this value', apart: true, off: !about?.alike, act: () => about?.alike?.() },
    { words: 'Why can this be entered, or not?', act: () => about?.why() },
    ...(openRule ? [{ words: `Field and rule of ${field.heading}`, act: openRule }] : []),
  ];
}
