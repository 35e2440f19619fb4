// The active cell belongs to a row and a column, not to numbers: when others come or go before it, it is followed.
import { useCallback, useLayoutEffect, useRef } from 'react';

/** How far away a row is looked for. */
const reach = 1000;

function rowOf(key: string, near: number, rowKey: (row: number) => string | undefined): number | undefined {
  for (let distance = 1; distance <= reach; distance++) {
    if (rowKey(near - distance) === key) return near - distance;
    if (rowKey(near + distance) === key) return near + distance;
  }
  return undefined;
}

/**
 * For columns as for rows. Calls `shift` with the number of rows by which the active row has moved without anybody moving it. What it
 * returns forgets the row: the one that stands there when the grid is drawn next is the one that is followed from then on.
 */
export function useFollowedRow(
  activeRow: number,
  rowKey: ((row: number) => string | undefined) | undefined,
  shift: (by: number) => void,
): () => void {
  const known = useRef<{ row: number; key: string | undefined }>({ row: activeRow, key: undefined });
  const key = rowKey?.(activeRow);
  useLayoutEffect(() => {
    const { row, key: held } = known.current;
    known.current = { row: activeRow, key: key ?? (row === activeRow ? held : undefined) };
    // A row that is loading has no key yet; it is still the same row.
    if (!rowKey || row !== activeRow || held === undefined || key === undefined || key === held) return;
    const at = rowOf(held, activeRow, rowKey);
    if (at === undefined) return;
    known.current = { row: at, key: held };
    shift(at - activeRow);
  });
  return useCallback(() => {
    known.current = { row: -1, key: undefined };
  }, []);
}
