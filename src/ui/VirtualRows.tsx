import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, type ReactNode } from 'react';

interface VirtualRowsProps<T> {
  rows: readonly T[];
  /** Of every row, in pixels. */
  height: number;
  children: (row: T) => ReactNode;
}

/**
 * The body of a long table: only the rows in sight are drawn, with room kept for the rest. The part that scrolls is
 * the nearest element around it with `data-scroller`: found from the body itself, for a ref of the parent is not
 * there yet when the first rows are measured.
 */
export function VirtualRows<T>({ rows, height, children }: VirtualRowsProps<T>) {
  const body = useRef<HTMLTableSectionElement>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => body.current?.closest('[data-scroller]') ?? null,
    estimateSize: () => height,
    overscan: 5,
    // It is never higher: what is in sight is drawn at once, before it is measured.
    initialRect: { width: 0, height: window.innerHeight },
  });
  const items = virtual.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <tbody ref={body}>
      {before > 0 && <tr aria-hidden style={{ height: before }} />}
      {items.map((item) => {
        const row = rows[item.index];
        return row === undefined ? null : children(row);
      })}
      {after > 0 && <tr aria-hidden style={{ height: after }} />}
    </tbody>
  );
}
