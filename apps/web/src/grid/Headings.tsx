// The headings: name of the field, and which rule it has.
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import type { CSSProperties, PointerEvent } from 'react';
import { Mark } from '../theme/Mark.js';
import type { GridColumn } from './models.js';

interface HeadingsProps {
  readonly columns: readonly GridColumn[];
  readonly gutterWidth: number;
  readonly headWidth: number;
  readonly chosen: string | undefined;
  readonly lefts: readonly (number | undefined)[];
  readonly onHeading: ((column: number) => void) | undefined;
  readonly onWidth: ((column: number, width: number) => void) | undefined;
  readonly onMoveColumn: ((column: number, to: number) => void) | undefined;
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

/** A heading that is dragged by so many pixels is moved; less is a click. */
const dragFrom = 8;

export function Headings(props: HeadingsProps) {
  const { columns, gutterWidth, headWidth, onMoveColumn } = props;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: dragFrom } }));
  const drop = ({ active, over }: DragEndEvent) => {
    const to = columns.findIndex(({ key }) => key === over?.id);
    const from = columns.findIndex(({ key }) => key === active.id);
    if (to >= 0 && to !== from) onMoveColumn?.(from, to);
  };
  const row = (
    <div role="row" aria-rowindex={1} style={{ display: 'flex' }}>
      {gutterWidth > 0 && <div role="presentation" style={{ width: gutterWidth }} />}
      {headWidth > 0 && (
        <div role="columnheader" className="dl-heading" style={{ width: headWidth, position: 'sticky', left: 0, zIndex: 2 }}>
          <span className="sr-only">Row</span>
        </div>
      )}
      {columns.map((column, at) => (
        <ColumnHeading key={column.key} {...props} column={column} at={at} />
      ))}
    </div>
  );
  return (
    <div role="rowgroup" className="dl-headings">
      {onMoveColumn ? (
        <DndContext sensors={sensors} onDragEnd={drop} accessibility={{ container: document.body }}>
          {row}
        </DndContext>
      ) : (
        row
      )}
    </div>
  );
}

function ColumnHeading({
  column,
  at,
  chosen,
  lefts,
  onHeading,
  onWidth,
  onMoveColumn,
}: HeadingsProps & { readonly column: GridColumn; readonly at: number }) {
  const { setNodeRef: setTarget, isOver } = useDroppable({ id: column.key, disabled: !onMoveColumn });
  const { setNodeRef: setHandle, listeners, transform, isDragging } = useDraggable({ id: column.key, disabled: !onMoveColumn });
  const style: CSSProperties = { width: column.width, ...(lefts[at] !== undefined && { position: 'sticky', left: lefts[at], zIndex: 2 }) };
  return (
    <div
      ref={setTarget}
      role="columnheader"
      aria-colindex={at + 2}
      className={['dl-heading', column.key === chosen && 'chosen', isOver && !isDragging && 'drop'].filter(Boolean).join(' ')}
      style={style}
    >
      <button
        ref={setHandle}
        type="button"
        {...listeners}
        style={transform ? { transform: `translateX(${transform.x}px)`, opacity: 0.8 } : undefined}
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
