// Selecting by mouse: press, drag, hold Shift; near the edge the grid scrolls by itself.
import { useEffect, useRef, type MouseEvent, type RefObject } from 'react';
import type { Place } from './models.js';
import type { Selection } from './useSelection.js';

const edge = 28;
const scrollEvery = 40;

/** The place of the cell under a point of the window. */
function placeAt(x: number, y: number, grid: HTMLElement): Place | undefined {
  const cell = document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-row]');
  if (!cell || !grid.contains(cell)) return undefined;
  return { row: Number(cell.dataset['row']), column: Number(cell.dataset['column'] ?? 0) };
}

export function usePointer(grid: RefObject<HTMLElement | null>, selection: Selection, columns: number) {
  const dragging = useRef<{ wholeRows: boolean } | undefined>(undefined);
  const latest = useRef(selection);
  useEffect(() => {
    latest.current = selection;
  });

  useEffect(() => {
    let timer: number | undefined;
    let at = { x: 0, y: 0 };
    const extend = () => {
      const place = grid.current && placeAt(at.x, at.y, grid.current);
      if (place) latest.current.extendTo(dragging.current?.wholeRows ? { row: place.row, column: columns - 1 } : place);
    };
    const scroll = () => {
      const box = grid.current!.getBoundingClientRect();
      const down = at.y > box.bottom - edge ? 1 : at.y < box.top + edge + 40 ? -1 : 0;
      const right = at.x > box.right - edge ? 1 : at.x < box.left + edge ? -1 : 0;
      if (down || right) {
        grid.current!.scrollBy({ top: down * 30, left: right * 40 });
        extend();
      }
    };
    const move = (event: globalThis.MouseEvent) => {
      if (!dragging.current) return;
      at = { x: event.clientX, y: event.clientY };
      extend();
      timer ??= window.setInterval(scroll, scrollEvery);
    };
    const stop = () => {
      dragging.current = undefined;
      window.clearInterval(timer);
      timer = undefined;
    };
    window.addEventListener('mousemove', move);
    window.addEventListener('mouseup', stop);
    return () => {
      stop();
      window.removeEventListener('mousemove', move);
      window.removeEventListener('mouseup', stop);
    };
  }, [grid, columns]);

  return {
    onCell: (event: MouseEvent, place: Place) => {
      if (event.button !== 0) return;
      event.preventDefault();
      dragging.current = { wholeRows: false };
      if (event.shiftKey) latest.current.extendTo(place);
      else latest.current.moveTo(place);
    },
    onRow: (event: MouseEvent, row: number) => {
      if (event.button !== 0) return;
      event.preventDefault();
      dragging.current = { wholeRows: true };
      const first = event.shiftKey ? { row: latest.current.active.row, column: 0 } : { row, column: 0 };
      latest.current.set(first, { row, column: columns - 1 });
    },
  };
}
