import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useRef, type ReactNode } from 'react';
import styles from './messages.module.css';

interface VirtualListProps<T> {
  rows: readonly T[];
  label: string;
  children: (row: T) => ReactNode;
}

/** A long list of things of any height: only those in sight are drawn. */
export function VirtualList<T>({ rows, label, children }: VirtualListProps<T>) {
  const list = useRef<HTMLUListElement>(null);
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => 150,
    overscan: 4,
    scrollMargin: list.current?.offsetTop ?? 0,
  });
  const items = virtual.getVirtualItems();
  const before = (items[0]?.start ?? 0) - virtual.options.scrollMargin;
  const after = virtual.getTotalSize() - ((items.at(-1)?.end ?? 0) - virtual.options.scrollMargin);
  return (
    <ul
      ref={list}
      className={styles.messages}
      aria-label={label}
      style={{ paddingTop: Math.max(0, before), paddingBottom: Math.max(0, after) }}
    >
      {items.map((item) => {
        const row = rows[item.index];
        return row === undefined ? null : (
          <li key={item.key} data-index={item.index} ref={virtual.measureElement}>
            {children(row)}
          </li>
        );
      })}
    </ul>
  );
}
