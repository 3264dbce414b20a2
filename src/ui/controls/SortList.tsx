'use client';

import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import DragIndicator from '@mui/icons-material/DragIndicator';
import IconButton from '@mui/material/IconButton';
import { useId, type ReactNode } from 'react';

interface SortListProps {
  items: readonly { id: string; name: string }[];
  /** A part was put in the place of another. */
  onMove: (id: string, to: number) => void;
  /** Draws a part; `grip` is what it is taken hold of by. */
  part: (index: number, grip: ReactNode) => ReactNode;
}

/** Parts in an order of their own: taken by their grip and dragged, or lifted with the space bar and moved with the arrow keys. */
export function SortList({ items, onMove, part }: SortListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = items.map(({ id }) => id);
  const nameOf = (id: unknown): string => items.find((item) => item.id === id)?.name ?? '';
  const place = (id: unknown): string => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(active.id)} lifted, ${place(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over && over.id !== active.id ? `${nameOf(active.id)} over ${place(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) => `${nameOf(active.id)} put down${over ? `, ${place(over.id)}` : ''}.`,
    onDragCancel: ({ active }) => `${nameOf(active.id)} is back where it was.`,
  };
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: 'Space lifts it, the arrow keys move it, space puts it down, Esc leaves it.',
        },
      }}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onMove(String(active.id), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        {items.map(({ id, name }, index) => (
          <Sorted key={id} id={id} name={name} alone={items.length < 2}>
            {(grip) => part(index, grip)}
          </Sorted>
        ))}
      </SortableContext>
    </DndContext>
  );
}

function Sorted({
  id,
  name,
  alone,
  children,
}: {
  id: string;
  name: string;
  alone: boolean;
  children: (grip: ReactNode) => ReactNode;
}) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id,
    disabled: alone,
  });
  const grip = alone ? null : (
    <IconButton
      ref={setActivatorNodeRef}
      size="small"
      {...attributes}
      {...listeners}
      aria-label={`Move ${name}`}
      title="Drag it, or press space and the arrow keys"
      sx={{ cursor: 'grab', touchAction: 'none' }}
    >
      <DragIndicator fontSize="inherit" />
    </IconButton>
  );
  return (
    <div
      ref={setNodeRef}
      style={{
        transform: CSS.Translate.toString(transform),
        transition,
        ...(isDragging && { position: 'relative', zIndex: 1, background: 'var(--sheet)' }),
      }}
    >
      {children(grip)}
    </div>
  );
}
