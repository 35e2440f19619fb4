// Which key does what in the grid, after the grid pattern of the W3C ARIA Authoring Practices Guide.
import type { KeyboardEvent } from 'react';
import type { Place } from './models.js';

export type GridAct =
  | { readonly act: 'move'; readonly to: Place; readonly extend: boolean }
  | { readonly act: 'edit'; readonly text?: string; readonly openList: boolean }
  | { readonly act: 'clear' | 'leave' | 'leaveBack' | 'all' | 'escape' | 'rows' | 'menu' | 'deleteRows' | 'find' }
  | { readonly act: 'insert'; readonly where: 'above' | 'below' }
  | { readonly act: 'moveRows'; readonly by: -1 | 1 }
  | { readonly act: 'fill'; readonly how: 'same' | 'series' }
  | { readonly act: 'again'; readonly as: 'undo' | 'redo' };

interface Extent {
  readonly rows: number;
  readonly columns: number;
  readonly pageRows: number;
}

const clamp = (value: number, most: number) => Math.max(0, Math.min(most, value));

function target(key: string, ctrl: boolean, { row, column }: Place, { rows, columns, pageRows }: Extent): Place | undefined {
  switch (key) {
    case 'ArrowDown':
      return { row: ctrl ? rows - 1 : row + 1, column };
    case 'ArrowUp':
      return { row: ctrl ? 0 : row - 1, column };
    case 'ArrowRight':
      return { row, column: ctrl ? columns - 1 : column + 1 };
    case 'ArrowLeft':
      return { row, column: ctrl ? 0 : column - 1 };
    case 'Home':
      return { row: ctrl ? 0 : row, column: 0 };
    case 'End':
      return { row: ctrl ? rows - 1 : row, column: columns - 1 };
    case 'PageDown':
      return { row: row + pageRows, column };
    case 'PageUp':
      return { row: row - pageRows, column };
    default:
      return undefined;
  }
}

/** The next or previous cell in reading order; undefined at the ends. */
export function step({ row, column }: Place, by: 1 | -1, { rows, columns }: Pick<Extent, 'rows' | 'columns'>): Place | undefined {
  const at = row * columns + column + by;
  if (at < 0 || at >= rows * columns) return undefined;
  return { row: Math.floor(at / columns), column: at % columns };
}

/** What a key pressed on the active cell asks for; undefined when it is not the grid's. `focus` is the moving end of the block. */
export function actOf(event: KeyboardEvent, active: Place, focus: Place, extent: Extent): GridAct | undefined {
  const { key, ctrlKey, metaKey, altKey, shiftKey } = event;
  const ctrl = ctrlKey || metaKey;
  if (key === 'F6') return { act: shiftKey ? 'leaveBack' : 'leave' };
  if (key === 'F8') return { act: 'fill', how: shiftKey ? 'series' : 'same' };
  if (altKey && shiftKey && (key === 'ArrowUp' || key === 'ArrowDown')) return { act: 'moveRows', by: key === 'ArrowUp' ? -1 : 1 };
  if (key === 'ContextMenu' || (key === 'F10' && shiftKey)) return { act: 'menu' };
  if (key === 'Insert' && !ctrl && !shiftKey) return { act: 'insert', where: altKey ? 'below' : 'above' };
  if (altKey && key === 'ArrowDown') return { act: 'edit', openList: true };
  if (altKey) return undefined;
  if (key === 'Tab') {
    const to = step(active, shiftKey ? -1 : 1, extent);
    return to ? { act: 'move', to, extend: false } : undefined;
  }
  const to = target(key, ctrl, shiftKey ? focus : active, extent);
  if (to)
    return { act: 'move', to: { row: clamp(to.row, extent.rows - 1), column: clamp(to.column, extent.columns - 1) }, extend: shiftKey };
  if (key === 'Enter' && shiftKey)
    return { act: 'move', to: { row: clamp(active.row - 1, extent.rows - 1), column: active.column }, extend: false };
  if (key === ' ' && shiftKey) return { act: 'rows' };
  if (ctrl && (key === 'Delete' || key === 'Backspace')) return { act: 'deleteRows' };
  if (ctrl && key.toLowerCase() === 'f') return { act: 'find' };
  if (ctrl && key.toLowerCase() === 'a') return { act: 'all' };
  if (ctrl && key.toLowerCase() === 'z') return { act: 'again', as: shiftKey ? 'redo' : 'undo' };
  if (ctrl && key.toLowerCase() === 'y') return { act: 'again', as: 'redo' };
  if (ctrl) return undefined;
  if (key === 'Enter' || key === 'F2') return { act: 'edit', openList: false };
  if (key === 'Delete' || key === 'Backspace') return { act: 'clear' };
  if (key === 'Escape') return { act: 'escape' };
  // The frame lists the keys.
  if (key === '?') return undefined;
  if (key.length === 1) return { act: 'edit', text: key, openList: false };
  return undefined;
}
