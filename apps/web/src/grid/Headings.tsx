// The headings: name of the field, and which rule it has.
import type { PointerEvent } from 'react';
import { Mark } from '../frame/Mark.js';
import type { GridColumn } from './models.js';

interface HeadingsProps {
  readonly columns: readonly GridColumn[];
  readonly gutterWidth: number;
  readonly headWidth: number;
  readonly chosen: string | undefined;
  readonly lefts: readonly (number | undefined)[];
  readonly onHeading: ((column: number) => void) | undefined;
  readonly onWidth: ((column: number, width: number) => void) | undefined;
}

/** Drags the edge of a heading; the column follows when it is let go. */
function dragWidth(event: PointerEvent<HTMLSpanElement>, width: number, done: (width: number) => void): void {
  event.preventDefault();
  const edge = event.currentTarget;
  const heading = edge.parentElement!;
  const from = event.clientX;
  const now = (x: number) => Math.max(narrowest, Math.min(widest, Math.round(width + x - from)));
  edge.setPointerCapture(event.pointerId);
  const move = (moved: globalThis.PointerEvent) => {
    heading.style.width = `${now(moved.clientX)}px`;
  };
  const drop = (dropped: globalThis.PointerEvent) => {
    edge.removeEventListener('pointermove', move);
    edge.removeEventListener('pointerup', drop);
    if (now(dropped.clientX) !== width) done(now(dropped.clientX));
  };
  edge.addEventListener('pointermove', move);
  edge.addEventListener('pointerup', drop);
}

const narrowest = 40;
const widest = 800;

export function Headings({ columns, gutterWidth, headWidth, chosen, lefts, onHeading, onWidth }: HeadingsProps) {
  return (
    <div role="rowgroup" className="dl-headings">
      <div role="row" aria-rowindex={1} style={{ display: 'flex' }}>
        {gutterWidth > 0 && <div role="presentation" style={{ width: gutterWidth }} />}
        {headWidth > 0 && (
          <div role="columnheader" className="dl-heading" style={{ width: headWidth, position: 'sticky', left: 0, zIndex: 2 }}>
            <span className="sr-only">Row</span>
          </div>
        )}
        {columns.map((column, at) => (
          <div key={column.key} role="columnheader" aria-colindex={at + 2} className={column.key === chosen ? 'dl-heading chosen' : 'dl-heading'} style={{ width: column.width, ...(lefts[at] !== undefined && { position: 'sticky', left: lefts[at], zIndex: 2 }) }}>
            <button type="button" onClick={() => onHeading?.(at)} title={`${column.heading}: ${column.rule}`}>
              <span className="name" dir="auto">
                {column.heading}
              </span>
              <span className="rule">
                {column.fromCatalog && <Mark size={11} />}
                {column.rule}
              </span>
            </button>
            {onWidth && <span className="dl-edge" aria-hidden onPointerDown={(event) => dragWidth(event, column.width, (width) => onWidth(at, width))} />}
          </div>
        ))}
      </div>
    </div>
  );
}
