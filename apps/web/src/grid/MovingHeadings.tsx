// Headings that are dragged to another place.
import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import type { ReactNode } from 'react';
import { ColumnHeading, type HeadingsProps } from './Headings.js';
import type { GridColumn } from './models.js';

/** A heading that is dragged by so many pixels is moved; less is a click. */
const dragFrom = 8;

interface MovingHeadingsProps extends HeadingsProps {
  onMoveColumn(column: number, to: number): void;
  row(headings: ReactNode): ReactNode;
}

export function MovingHeadings({ row, ...props }: MovingHeadingsProps) {
  const { columns, onMoveColumn } = props;
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: dragFrom } }));
  const drop = ({ active, over }: DragEndEvent) => {
    const to = columns.findIndex(({ key }) => key === over?.id);
    const from = columns.findIndex(({ key }) => key === active.id);
    if (to >= 0 && to !== from) onMoveColumn(from, to);
  };
  return (
    <DndContext sensors={sensors} onDragEnd={drop} accessibility={{ container: document.body }}>
      {row(columns.map((column, at) => <MovingHeading key={column.key} {...props} column={column} at={at} />))}
    </DndContext>
  );
}

function MovingHeading(props: HeadingsProps & { readonly column: GridColumn; readonly at: number }) {
  const { key } = props.column;
  const { setNodeRef: target, isOver } = useDroppable({ id: key });
  const { setNodeRef: handle, listeners, transform, isDragging } = useDraggable({ id: key });
  return <ColumnHeading {...props} drag={{ target, handle, listeners, by: transform?.x, isOver: isOver && !isDragging }} />;
}
