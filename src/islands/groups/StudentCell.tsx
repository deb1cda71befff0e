import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import styles from './groups.module.css';

interface StudentCellProps {
  /** Where it stands: found again by arrow keys. */
  row: number;
  column: number;
  label: string;
  value: string;
  /** Keeps what was typed; false when it cannot be kept. */
  keep: (value: string) => boolean;
}

/** Moves to the cell at a place of the same table, where there is one. */
function goTo(from: Element, row: number, column: number): boolean {
  const cell = from.closest('table')?.querySelector<HTMLElement>(`[data-cell="${row}:${column}"]`);
  cell?.focus();
  cell?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  return cell !== null && cell !== undefined;
}

/** One cell of the table: arrows move, Enter or typing changes it, Enter keeps and goes down, Escape leaves it. */
export function StudentCell({ row, column, label, value, keep }: StudentCellProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const button = useRef<HTMLButtonElement>(null);
  const refocus = useRef(false);
  // Left by a key: the blur that follows has nothing more to keep.
  const left = useRef(false);
  useEffect(() => {
    if (draft === null) left.current = false;
    if (draft !== null || !refocus.current) return;
    refocus.current = false;
    button.current?.focus();
  }, [draft]);

  if (draft === null)
    return (
      <button
        ref={button}
        type="button"
        className={styles.cell}
        data-cell={`${row}:${column}`}
        aria-label={`${label}: ${value || 'empty'}`}
        onClick={() => setDraft(value)}
        onKeyDown={(event) => {
          const step = steps[event.key];
          if (step) {
            event.preventDefault();
            goTo(event.currentTarget, row + step[0], column + step[1]);
          } else if (event.key.length === 1 && event.key !== ' ' && !hasModifier(event)) {
            event.preventDefault();
            event.stopPropagation();
            setDraft(event.key);
          } else if (event.key === 'Delete' || event.key === 'Backspace') {
            event.preventDefault();
            setDraft('');
          }
        }}
      >
        {value}
      </button>
    );

  const canLeave = () => draft.trim() === value || keep(draft.trim());
  return (
    <input
      className={styles.cellInput}
      aria-label={label}
      // The cell was chosen to be typed in.
      autoFocus
      maxLength={200}
      value={draft}
      onChange={(event) => setDraft(event.currentTarget.value)}
      onBlur={() => {
        if (!left.current && canLeave()) setDraft(null);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          if (!canLeave()) return;
          left.current = true;
          refocus.current = !goTo(event.currentTarget, row + 1, column);
          setDraft(null);
        } else if (event.key === 'Escape') {
          left.current = true;
          refocus.current = true;
          setDraft(null);
        }
      }}
    />
  );
}

const steps: Partial<Record<string, [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

const hasModifier = (event: KeyboardEvent) => event.ctrlKey || event.metaKey || event.altKey;
