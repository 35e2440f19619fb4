// The headings: name of the field, and which rule it has.
import type { DraggableSyntheticListeners } from '@dnd-kit/core';
import { useEffect, useState, type CSSProperties, type PointerEvent, type ReactNode, type Ref } from 'react';
import { whenIdle } from '../frame/whenIdle.js';
import { Mark } from '../theme/Mark.js';
import type { GridColumn } from './models.js';

export interface HeadingsProps {
  readonly columns: readonly GridColumn[];
  readonly gutterWidth: number;
  readonly headWidth: number;
  readonly chosen: string | undefined;
  readonly lefts: readonly (number | undefined)[];
  readonly onHeading: ((column: number) => void) | undefined;
  readonly onWidth: ((column: number, width: number) => void) | undefined;
  readonly onMoveColumn: ((column: number, to: number) => void) | undefined;
}

type Moving = typeof import('./MovingHeadings.js');

/** The headings that can be dragged come once the page stands; nobody drags one sooner. */
function useMoving(wanted: boolean): Moving | undefined {
  const [moving, setMoving] = useState<Moving>();
  useEffect(() => {
    if (!wanted) return;
    return whenIdle(() => void import('./MovingHeadings.js').then(setMoving).catch(() => undefined));
  }, [wanted]);
  return moving;
}

export function Headings(props: HeadingsProps) {
  const moving = useMoving(props.onMoveColumn !== undefined);
  const { columns, gutterWidth, headWidth, onMoveColumn } = props;
  const row = (headings: ReactNode) => (
    <div role="row" aria-rowindex={1} style={{ display: 'flex' }}>
      {gutterWidth > 0 && <div role="presentation" style={{ width: gutterWidth }} />}
      {headWidth > 0 && (
        <div role="columnheader" className="dl-heading" style={{ width: headWidth, position: 'sticky', left: 0, zIndex: 2 }}>
          <span className="sr-only">Row</span>
        </div>
      )}
      {headings}
    </div>
  );
  return (
    <div role="rowgroup" className="dl-headings">
      {moving && onMoveColumn ? (
        <moving.MovingHeadings {...props} onMoveColumn={onMoveColumn} row={row} />
      ) : (
        row(columns.map((column, at) => <ColumnHeading key={column.key} {...props} column={column} at={at} />))
      )}
    </div>
  );
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

/** What dragging adds to a heading. */
interface Drag {
  readonly target: Ref<HTMLDivElement>;
  readonly handle: Ref<HTMLButtonElement>;
  readonly listeners: DraggableSyntheticListeners;
  /** Pixels by which it has been dragged. */
  readonly by: number | undefined;
  /** Another is held over it. */
  readonly isOver: boolean;
}

interface ColumnHeadingProps extends Omit<HeadingsProps, 'onMoveColumn'> {
  readonly column: GridColumn;
  readonly at: number;
  readonly drag?: Drag;
}

export function ColumnHeading({ column, at, chosen, lefts, onHeading, onWidth, drag }: ColumnHeadingProps) {
  const style: CSSProperties = { width: column.width, ...(lefts[at] !== undefined && { position: 'sticky', left: lefts[at], zIndex: 2 }) };
  return (
    <div
      ref={drag?.target}
      role="columnheader"
      aria-colindex={at + 2}
      className={['dl-heading', column.key === chosen && 'chosen', drag?.isOver && 'drop'].filter(Boolean).join(' ')}
      style={style}
    >
      <button
        ref={drag?.handle}
        type="button"
        {...drag?.listeners}
        style={drag?.by === undefined ? undefined : { transform: `translateX(${drag.by}px)`, opacity: 0.8 }}
        onClick={() => onHeading?.(at)}
        title={`${column.heading}: ${column.rule}`}
      >
        <span className="name" dir="auto">
          {column.heading}
        </span>
        <span className="rule">
          {column.fromCatalog && <Mark size={11} />}
          {column.rule}
        </span>
      </button>
      {onWidth && (
        <span className="dl-edge" aria-hidden onPointerDown={(event) => dragWidth(event, column.width, (width) => onWidth(at, width))} />
      )}
    </div>
  );
}
