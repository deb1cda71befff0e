import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import type { Question } from '@/core/kinds';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import type { Seat } from '@/core/running/standing';
import { AnswerRow } from './AnswerRow';
import styles from './mark.module.css';

interface AnswerListProps {
  question: Question;
  groups: SameAnswers[];
  current: SameAnswers | undefined;
  /** The seats to take names from; null while names are hidden. */
  names: Seat[] | null;
  enterDoes: string;
  goTo: (id: string) => void;
  /** True when the key was taken. */
  onKey: (key: string) => boolean;
  comment: (group: SameAnswers, comment: string) => void;
}

/** The answers beneath one another; the current one takes the keys. Only what is in sight is drawn. */
export function AnswerList({
  question,
  groups,
  current,
  names,
  enterDoes,
  goTo,
  onKey,
  comment,
}: AnswerListProps) {
  const scroller = useRef<HTMLDivElement>(null);
  const currentIndex = groups.findIndex((group) => group.id === current?.id);
  const rows = useVirtualizer({
    count: groups.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 44,
    getItemKey: (index) => groups[index]?.id ?? index,
    overscan: 6,
  });
  useEffect(() => {
    if (currentIndex < 0) return;
    rows.scrollToIndex(currentIndex, { align: 'auto' });
    // Drawn first, focused then: the row may have been out of sight until now.
    const frame = requestAnimationFrame(() =>
      scroller.current
        ?.querySelector<HTMLElement>(`[data-row="${currentIndex}"]`)
        ?.focus({ preventScroll: true }),
    );
    return () => cancelAnimationFrame(frame);
  }, [currentIndex, rows]);
  // On the document, so that no key is lost while the focus moves from row to row: held keys come faster than rows
  // are drawn. What is pressed in a field, on a button or in a dialog stays theirs.
  const latestKey = useRef(onKey);
  useEffect(() => {
    latestKey.current = onKey;
  });
  useEffect(() => {
    const keyed = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const target = event.target;
      if (!(target instanceof HTMLElement)) return;
      const ours = target === document.body || target.matches('[data-row]') || target === scroller.current;
      if (ours && latestKey.current(event.key)) event.preventDefault();
    };
    document.addEventListener('keydown', keyed);
    return () => document.removeEventListener('keydown', keyed);
  }, []);
  return (
    <div ref={scroller} className={styles.scroller}>
      <ol className={styles.answers} style={{ height: rows.getTotalSize() }} aria-label="Answers">
        {rows.getVirtualItems().map((item) => {
          const group = groups[item.index];
          return (
            group && (
              <li
                key={item.key}
                ref={rows.measureElement}
                data-index={item.index}
                className={styles.place}
                style={{ transform: `translateY(${item.start}px)` }}
                aria-setsize={groups.length}
                aria-posinset={item.index + 1}
              >
                <AnswerRow
                  question={question}
                  group={group}
                  index={item.index}
                  current={item.index === currentIndex}
                  names={names}
                  enterDoes={enterDoes}
                  choose={() => goTo(group.id)}
                  comment={(text) => comment(group, text)}
                />
              </li>
            )
          );
        })}
      </ol>
    </div>
  );
}
