import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { registerName } from '@/core/model/names';
import type { MarkBookColumn } from '@/core/model/markBook';
import type { BookCell } from '@/core/markbook/total';
import { gradeOf } from '@/core/scoring/gradeOf';
import { VirtualRows } from '@/ui/VirtualRows';
import { percent, points, pointsFrom } from '@/words/format';
import { done } from '@/words/done';
import { standingWords } from '@/words/markBook';
import type { Picked } from './MarkBookPage';
import type { BookAtHand, BookRow } from './useMarkBook';
import styles from './markbook.module.css';

export type ShownAs = 'points' | 'percent' | 'grade';

interface BookGridProps {
  at: BookAtHand;
  rows: readonly BookRow[];
  shown: ShownAs;
  names: boolean;
  picked: Picked;
  pick: (picked: Picked) => void;
}

/** By what rows are sorted: the name, the total, or a column. */
type SortBy = { by: 'name' | 'total' | string; down: boolean };

/** Students by columns, worked like a sheet: arrow keys move, typing fills a typed column. */
export function BookGrid({ at, rows, shown, names, picked, pick }: BookGridProps) {
  const { book } = at;
  const [sort, setSort] = useState<SortBy>({ by: 'name', down: false });
  const [typing, setTyping] = useState<string | null>(null);
  const table = useRef<HTMLTableElement>(null);
  const sorted = useMemo(() => sortedRows(rows, sort), [rows, sort]);
  const ids = [...book.columns.map(({ id }) => id), total];
  // One cell is where Tab comes in: the picked one, else the first.
  const isThere = sorted.some(({ student }) => student.id === picked.studentId) && picked.columnId !== null;
  const entry = isThere ? picked : { studentId: sorted[0]?.student.id ?? null, columnId: ids[0] ?? total };
  const isEntry = (studentId: string, columnId: string) =>
    entry.studentId === studentId && entry.columnId === columnId;
  const sortBy = (by: string) => setSort({ by, down: sort.by === by ? !sort.down : by !== 'name' });
  const focusOn = (next: Picked) => {
    setTyping(null);
    pick(next);
    requestAnimationFrame(() =>
      table.current
        ?.querySelector<HTMLElement>(`[data-cell="${next.studentId ?? ''} ${next.columnId ?? ''}"]`)
        ?.focus(),
    );
  };
  const move = (event: KeyboardEvent, row: number, column: number) => {
    const by = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      Home: [0, -ids.length],
      End: [0, ids.length],
    }[event.key];
    if (!by) return false;
    event.preventDefault();
    const next = sorted[Math.min(sorted.length - 1, Math.max(0, row + (by[0] ?? 0)))];
    const id = ids[Math.min(ids.length - 1, Math.max(0, column + (by[1] ?? 0)))];
    if (next && id) focusOn({ studentId: next.student.id, columnId: id });
    return true;
  };
  /** Keeps what was typed for a student, and those below where several lines were pasted. */
  const keep = (column: MarkBookColumn, row: number, text: string) => {
    if (column.kind !== 'typed') return;
    const values = new Map(Object.entries(column.values));
    for (const [index, line] of text.split(/\r?\n/).entries()) {
      const student = sorted[row + index]?.student;
      const value = line.trim() === '' ? null : pointsFrom(line.trim());
      if (!student || (line.trim() !== '' && (value === null || value < 0))) continue;
      if (value === null) values.delete(student.id);
      else values.set(student.id, value);
    }
    at.setColumn(
      { ...column, values: Object.fromEntries(values) },
      done.markBookChanged,
      `typed ${column.id}`,
    );
  };
  const heading = (id: string, title: string, about: string) => (
    <th key={id} scope="col" aria-sort={sort.by === id ? (sort.down ? 'descending' : 'ascending') : 'none'}>
      <button type="button" className={styles.sort} onClick={() => sortBy(id)}>
        {title}
        {sort.by === id && (sort.down ? ' ↓' : ' ↑')}
      </button>
      {id !== 'name' && (
        <button
          type="button"
          className={styles.about}
          aria-label={`${about}: settings of ${title}`}
          aria-pressed={picked.columnId === id && picked.studentId === null}
          onClick={() => pick({ studentId: null, columnId: id })}
        >
          {about}
        </button>
      )}
    </th>
  );
  return (
    <div data-scroller className={styles.scroller} role="region" aria-label="Mark book" tabIndex={0}>
      <table ref={table} className={styles.table}>
        <thead>
          <tr>
            {heading('name', 'Student', '')}
            {book.columns.map((column) => heading(column.id, at.titleOf(column), columnWords(column, at)))}
            {heading(total, 'Total', 'how')}
          </tr>
        </thead>
        <VirtualRows rows={sorted} height={31}>
          {(row) => {
            const index = sorted.indexOf(row);
            return (
              <tr key={row.student.id} data-picked={picked.studentId === row.student.id}>
                <th scope="row">
                  {names ? registerName(row.student) : row.student.number || `no. ${index + 1}`}
                </th>
                {book.columns.map((column, place) => (
                  <Cell
                    key={column.id}
                    column={column}
                    row={row}
                    at={at}
                    shown={shown}
                    isPicked={picked.studentId === row.student.id && picked.columnId === column.id}
                    isEntry={isEntry(row.student.id, column.id)}
                    typing={typing}
                    setTyping={setTyping}
                    pick={() => pick({ studentId: row.student.id, columnId: column.id })}
                    move={(event) => move(event, index, place)}
                    keep={(text) => keep(column, index, text)}
                    next={() => {
                      const below = sorted[index + 1];
                      if (below) focusOn({ studentId: below.student.id, columnId: column.id });
                    }}
                  />
                ))}
                <td className={styles.total}>
                  <button
                    type="button"
                    data-cell={`${row.student.id} ${total}`}
                    tabIndex={isEntry(row.student.id, total) ? 0 : -1}
                    className={styles.cell}
                    onClick={() => pick({ studentId: row.student.id, columnId: total })}
                    onKeyDown={(event) => void move(event, index, ids.length - 1)}
                  >
                    {totalWords(row, shown, book.decimals)}
                  </button>
                </td>
              </tr>
            );
          }}
        </VirtualRows>
      </table>
    </div>
  );
}

/** In the place of a column: the total. */
export const total = 'total';

interface CellProps {
  column: MarkBookColumn;
  row: BookRow;
  at: BookAtHand;
  shown: ShownAs;
  isPicked: boolean;
  /** Whether Tab comes in here. */
  isEntry: boolean;
  typing: string | null;
  setTyping: (text: string | null) => void;
  pick: () => void;
  move: (event: KeyboardEvent) => boolean;
  keep: (text: string) => void;
  next: () => void;
}

function Cell({
  column,
  row,
  at,
  shown,
  isPicked,
  isEntry,
  typing,
  setTyping,
  pick,
  move,
  keep,
  next,
}: CellProps) {
  const cell = row.cells.get(column.id) ?? { is: 'missing' as const };
  const step = row.steps.units
    .flatMap(({ columns }) => columns)
    .find(({ columnId }) => columnId === column.id);
  const out = step && step.standing !== 'counts' && step.standing !== 'bonus';
  const typed = column.kind === 'typed';
  if (typed && isPicked && typing !== null)
    return (
      <td>
        <input
          className={styles.input}
          aria-label={`Points in ${at.titleOf(column)}`}
          autoFocus
          inputMode="decimal"
          value={typing}
          onChange={(event) => setTyping(event.currentTarget.value)}
          onPaste={(event) => {
            const text = event.clipboardData.getData('text');
            if (!text.trim().includes('\n')) return;
            event.preventDefault();
            keep(text.trimEnd());
            setTyping(null);
          }}
          onBlur={() => {
            keep(typing);
            setTyping(null);
          }}
          onKeyDown={(event) => {
            if (event.key === 'Enter') {
              keep(typing);
              setTyping(null);
              next();
            } else if (event.key === 'Escape') setTyping(null);
            event.stopPropagation();
          }}
        />
      </td>
    );
  return (
    <td>
      <button
        type="button"
        data-cell={`${row.student.id} ${column.id}`}
        data-out={out || undefined}
        tabIndex={isEntry ? 0 : -1}
        className={styles.cell}
        title={step ? standingWords[step.standing] : undefined}
        onClick={() => {
          if (typed && isPicked) setTyping(cell.is === 'points' ? points(cell.points) : '');
          pick();
        }}
        onKeyDown={(event) => {
          if (move(event) || !typed || event.ctrlKey || event.metaKey || event.altKey) return;
          if (event.key === 'Enter') setTyping(cell.is === 'points' ? points(cell.points) : '');
          else if (/^[\d.,]$/.test(event.key)) setTyping(event.key);
          else if (event.key === 'Delete' || event.key === 'Backspace') keep('');
          else return;
          event.preventDefault();
        }}
      >
        {cellWords(cell, column, at, shown)}
        {step?.standing === 'excused' && <span className="visuallyHidden"> excused</span>}
      </button>
    </td>
  );
}

/** "12", "60%", "merit"; "…" while it is not marked, "–" where it was not sat. */
function cellWords(cell: BookCell, column: MarkBookColumn, at: BookAtHand, shown: ShownAs): string {
  if (cell.is === 'ahead' || cell.is === 'notGiven') return '';
  if (cell.is === 'missing') return '–';
  const { points: had, max } = cell;
  const open = cell.is === 'open' ? '…' : '';
  if (shown === 'points') return `${points(had)}${open}`;
  const scale = column.kind === 'sitting' ? at.scales.get(column.sittingId) : null;
  if (shown === 'grade' && cell.is === 'points' && scale)
    return gradeOf(scale, { points: had, max }) ?? 'below';
  return max > 0 ? `${percent(had / max)}${open}` : '';
}

function totalWords({ steps }: BookRow, shown: ShownAs, decimals: number): string {
  if (steps.percent === null) return '';
  if (shown === 'grade' && steps.grade !== null) return steps.grade;
  return `${steps.percent.toFixed(decimals)}%`;
}

/** "of 15", and how it counts. */
function columnWords(column: MarkBookColumn, at: BookAtHand): string {
  const { weight, bonus, dropped, categoryId } = column;
  const category = at.book.categories.find(({ id }) => id === categoryId)?.name;
  const how = dropped ? 'doesn’t count' : bonus ? 'bonus' : weight === 1 ? '' : `× ${points(weight)}`;
  return [category, how].filter(Boolean).join(', ') || 'counts';
}

function sortedRows(rows: readonly BookRow[], { by, down }: SortBy): BookRow[] {
  if (by === 'name') return down ? [...rows].reverse() : [...rows];
  const value = ({ cells, steps }: BookRow): number => {
    if (by === total) return steps.total ?? -1;
    const cell = cells.get(by);
    return cell && (cell.is === 'points' || cell.is === 'open') && cell.max > 0 ? cell.points / cell.max : -1;
  };
  const sign = down ? -1 : 1;
  return [...rows].sort((a, b) => sign * (value(a) - value(b)));
}
