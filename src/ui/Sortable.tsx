import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  TouchSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { IconGripVertical } from '@/ui/icons';
import type { ReactNode } from 'react';
import styles from './Sortable.module.css';

interface SortableListProps {
  ids: string[];
  /** What one of them is called: "Question". */
  noun: string;
  move: (from: number, to: number) => void;
  className?: string | undefined;
  children: ReactNode;
}

/** A list that is put in order by mouse, finger or keys (Space, arrows, Space on a handle). */
export function SortableList({ ids, noun, move, className, children }: SortableListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 120, tolerance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, scrollBehavior: 'auto' }),
  );
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) move(ids.indexOf(String(active.id)), ids.indexOf(String(over.id)));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={dropped}
      accessibility={{ announcements: announcementsFor(ids, noun) }}
    >
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className={className}>{children}</ol>
      </SortableContext>
    </DndContext>
  );
}

interface SortableItemProps {
  id: string;
  /** What the handle does, in words: "Move question 3". */
  label: string;
  className?: string | undefined;
  children: ReactNode;
}

/** One of the list, with the handle it is moved by. */
export function SortableItem({ id, label, className, children }: SortableItemProps) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      className={className}
      style={{ transform: CSS.Translate.toString(transform), transition }}
    >
      <button type="button" className={styles.handle} aria-label={label} {...attributes} {...listeners}>
        <IconGripVertical size={16} />
      </button>
      {children}
    </li>
  );
}

/** What a screen reader says while something is moved. */
function announcementsFor(ids: string[], noun: string): Announcements {
  const place = (id: UniqueIdentifier) => ids.indexOf(String(id)) + 1;
  return {
    onDragStart: ({ active }) => `${noun} ${place(active.id)} picked up`,
    onDragOver: ({ active, over }) =>
      over ? `${noun} ${place(active.id)} is over place ${place(over.id)}` : undefined,
    onDragEnd: ({ active, over }) =>
      `${noun} ${place(active.id)} put down at place ${place(over?.id ?? active.id)}`,
    onDragCancel: ({ active }) => `${noun} ${place(active.id)} stays where it was`,
  };
}
