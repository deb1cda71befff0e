import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo } from 'react';
import type { MarkBook, MarkBookColumn } from '@/core/model/markBook';
import { studentTotal, type BookCell, type TotalSteps } from '@/core/markbook/total';
import { totalError, type TotalError } from '@/core/markbook/totalError';
import type { Student } from '@/core/model/people';
import { act } from '@/desk/act';
import { changeMarkBook, keepSittingTotals, markBookRows, type MarkBookRows } from '@/store/markBooks';
import { useAtOnce } from '@/ui/useAtOnce';
import { isoNow, useNow } from '@/ui/clock';

/** One student in a mark book. */
export interface BookRow {
  student: Student;
  /** By column id. */
  cells: ReadonlyMap<string, BookCell>;
  steps: TotalSteps;
  /** How good the total is; null where it can't be told. */
  error: TotalError | null;
}

/** A mark book as it is shown and changed. */
export interface BookAtHand extends MarkBookRows {
  rows: BookRow[];
  titleOf: (column: MarkBookColumn) => string;
  /** @param joins names a run of typing */
  change: (part: Partial<MarkBook>, said: string, joins?: string) => void;
  setColumn: (column: MarkBookColumn, said: string, joins?: string) => void;
}

/** Undefined while it is read; null when there is no such book. */
export function useMarkBook(id: string): BookAtHand | null | undefined {
  const now = useNow(60_000);
  const minute = Math.floor(now / 60_000) * 60_000;
  const read = useLiveQuery(async () => (await markBookRows(id, minute)) ?? null, [id, minute]);
  const [stale] = read?.stale ?? [];
  // One after another: what is there already is shown meanwhile.
  useEffect(() => {
    if (stale) void act(keepSittingTotals(stale, Date.now()));
  }, [stale, read]);
  const [book, setBook] = useAtOnce(read?.book);
  return useMemo(() => read && (book ? atHand({ ...read, book }, setBook) : null), [read, book, setBook]);
}

function atHand(read: MarkBookRows, show: (book: MarkBook, writing?: Promise<unknown>) => void): BookAtHand {
  const { book, students, sittings, totals } = read;
  const sittingTitles = new Map(sittings.map(({ id, title }) => [id, title]));
  const cellOf = (column: MarkBookColumn, studentId: string): BookCell => {
    if (column.kind === 'typed') {
      const points = column.values[studentId];
      return points === undefined ? { is: 'missing' } : { is: 'points', points, max: column.max };
    }
    const of = totals.get(column.sittingId);
    // Where it is not computed yet, nothing is said of it.
    return of?.cells[studentId] ?? (of ? { is: 'notGiven' } : { is: 'ahead' });
  };
  const errors = new Map(
    book.columns.flatMap((column) => {
      const error = column.kind === 'sitting' ? totals.get(column.sittingId)?.error : null;
      return error === null || error === undefined ? [] : [[column.id, error] as const];
    }),
  );
  const rows = students.map((student): BookRow => {
    const cells = new Map(book.columns.map((column) => [column.id, cellOf(column, student.id)]));
    const steps = studentTotal(book, cells, student.id);
    return { student, cells, steps, error: totalError(steps, errors) };
  });
  const change: BookAtHand['change'] = (part, said, joins) => {
    const next = { ...book, ...part };
    const writing = act(changeMarkBook(next, said, isoNow(), book, joins));
    show(next, writing);
    void writing.then((kept) => kept ?? show(book));
  };
  return {
    ...read,
    rows,
    titleOf: (column) =>
      column.kind === 'typed' ? column.title : (sittingTitles.get(column.sittingId) ?? 'Deleted sitting'),
    change,
    setColumn: (column, said, joins) =>
      change({ columns: book.columns.map((each) => (each.id === column.id ? column : each)) }, said, joins),
  };
}
