import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import { sumBy } from 'remeda';
import { plainText } from '@/core/basics/richWords';
import { courseOf } from '@/core/sittings/deskOrder';
import { DeskReady } from '@/desk/DeskReady';
import { waitingRows, type WaitingRow } from '@/store/waiting';
import { useNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { counted, dayAndTime } from '@/words/format';
import styles from './waiting.module.css';

/** Everything on the desk that waits for a hand, over all sittings. */
export function WaitingPage() {
  return (
    <DeskReady>
      <Waiting />
    </DeskReady>
  );
}

const placeOf = ({ sitting, question }: WaitingRow) =>
  `/sittings/${sitting.id}/mark?question=${encodeURIComponent(question.id)}`;
const courseWords = (row: WaitingRow) => {
  const { course, term } = courseOf(row);
  return [course, term].filter(Boolean).join(', ');
};

const column = createColumnHelper<WaitingRow>();
const columns = [
  column.accessor(({ sitting }) => sitting.title, { id: 'sitting', header: 'Sitting' }),
  column.accessor(({ number }) => number, {
    id: 'question',
    header: 'Question',
    sortingFn: (a, b) => a.index - b.index,
  }),
  column.accessor(courseWords, { id: 'course', header: 'Course' }),
  column.accessor('waiting', { header: 'Waiting' }),
  column.accessor('different', { header: 'Different' }),
  column.accessor('putForward', { header: 'Put forward' }),
  column.accessor(({ oldest }) => oldest ?? '9', { id: 'oldest', header: 'Handed in since' }),
];

function Waiting() {
  const now = useNow(30_000);
  const rows = useLiveQuery(() => waitingRows(Date.now()), []);
  if (!rows) return null;
  if (rows.length === 0)
    return (
      <EmptyState title="Nothing waits for you" action={<a href="/">Go to the desk</a>}>
        Answers that need a mark appear here once students have handed in.
      </EmptyState>
    );
  const answers = sumBy(rows, ({ waiting }) => waiting);
  const forward = sumBy(rows, ({ putForward }) => putForward);
  return (
    <>
      <h1 className={styles.heading}>What waits for a mark</h1>
      <p className={styles.soft}>
        {counted(answers, 'answer')} in{' '}
        {counted(rows.filter(({ waiting }) => waiting > 0).length, 'question')}
        {forward > 0 && `; ${counted(forward, 'answer')} put forward as nearly right`}.
      </p>
      <WaitingTable rows={rows} now={now} />
    </>
  );
}

function WaitingTable({ rows, now }: { rows: WaitingRow[]; now: number }) {
  const [sorting, setSorting] = useState<SortingState>([{ id: 'oldest', desc: false }]);
  const table = useReactTable({
    data: rows,
    columns,
    onSortingChange: setSorting,
    getRowId: ({ sitting, question }) => `${sitting.id} ${question.id}`,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    // What nothing is said of takes no room.
    state: {
      sorting,
      columnVisibility: {
        course: rows.some((row) => courseWords(row) !== ''),
        putForward: rows.some(({ putForward }) => putForward > 0),
      },
    },
    enableSortingRemoval: false,
    sortDescFirst: false,
  });
  const shown = table.getRowModel().rows;
  const body = useRef<HTMLTableSectionElement>(null);
  // Enter goes to the first at once.
  useEffect(() => body.current?.querySelector<HTMLElement>('a')?.focus(), []);
  const move = (from: HTMLElement, by: number) => {
    const links = [...(from.closest('tbody')?.querySelectorAll<HTMLElement>('a') ?? [])];
    links[links.indexOf(from) + by]?.focus();
  };
  return (
    <div className={styles.scroller}>
      <table className={styles.table}>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              {group.headers.map(({ id, column: of, getContext }) => {
                const sorted = of.getIsSorted();
                return (
                  <th
                    key={id}
                    scope="col"
                    className={numeric.has(id) ? styles.number : undefined}
                    aria-sort={sorted === false ? 'none' : sorted === 'asc' ? 'ascending' : 'descending'}
                  >
                    <button
                      type="button"
                      onClick={() => of.toggleSorting(sorted ? sorted === 'asc' : numeric.has(id))}
                    >
                      {flexRender(of.columnDef.header, getContext())}
                      <span aria-hidden>{sorted === false ? '' : sorted === 'asc' ? ' ↑' : ' ↓'}</span>
                    </button>
                  </th>
                );
              })}
            </tr>
          ))}
        </thead>
        <tbody ref={body}>
          {shown.map((row) => (
            <tr key={row.id}>
              {row.getVisibleCells().map(({ id, column: of }) => (
                <td key={id} className={numeric.has(of.id) ? styles.number : undefined}>
                  <Cell column={of.id} row={row.original} now={now} move={move} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface CellProps {
  column: string;
  row: WaitingRow;
  now: number;
  move: (from: HTMLElement, by: number) => void;
}

function Cell({ column: id, row, now, move }: CellProps) {
  const { sitting, question, number, oldest } = row;
  switch (id) {
    case 'sitting':
      return (
        <a
          href={placeOf(row)}
          aria-label={`Mark question ${number} of ${sitting.title}`}
          onKeyDown={(event) => {
            const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
            if (by === 0) return;
            event.preventDefault();
            move(event.currentTarget, by);
          }}
        >
          {sitting.title}
        </a>
      );
    case 'question':
      return (
        <>
          <strong>{number}</strong> <span className={styles.soft}>{shortened(plainText(question.stem))}</span>
        </>
      );
    case 'course':
      return courseWords(row);
    case 'oldest':
      return oldest === null ? '' : dayAndTime(oldest, now);
    case 'putForward':
      return row.putForward || '';
    default:
      return id === 'waiting' ? row.waiting : row.different;
  }
}

/** Numbers: pressed first, the most of them comes first. */
const numeric = new Set(['waiting', 'different', 'putForward']);

const shortened = (text: string) => (text.length > 70 ? `${text.slice(0, 70).trimEnd()}…` : text);
