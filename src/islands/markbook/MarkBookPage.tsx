import { Button, Checkbox, Radio, TextInput } from '@mantine/core';
import { useMemo, useState } from 'react';
import { registerName } from '@/core/model/names';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { TwoColumns } from '@/ui/TwoColumns';
import { bookSentence } from '@/words/markBook';
import { counted } from '@/words/format';
import { BookGrid, type ShownAs } from './BookGrid';
import { BookMargin } from './BookMargin';
import { TotalGrades } from './TotalGrades';
import { useMarkBook, type BookAtHand, type BookRow } from './useMarkBook';
import styles from './markbook.module.css';

/** All sittings of a course side by side, with totals. */
export function MarkBookPage({ bookId }: { bookId: string }) {
  return (
    <DeskReady
      shortcuts={[
        { keys: '← → ↑ ↓', does: 'move between cells' },
        { keys: 'Enter', does: 'type points, or see how a total comes about' },
      ]}
    >
      <Book bookId={bookId} />
    </DeskReady>
  );
}

function Book({ bookId }: { bookId: string }) {
  const at = useMarkBook(bookId);
  if (at === null)
    return <EmptyState title="Mark book not found" action={<a href="/mark-books">Go to mark books</a>} />;
  return at ? <Opened at={at} /> : null;
}

/** What is picked: a cell of a student and a column, a column, or a student's total. */
export interface Picked {
  studentId: string | null;
  columnId: string | null;
}

function Opened({ at }: { at: BookAtHand }) {
  const [shown, setShown] = useState<ShownAs>('points');
  const [names, setNames] = useState(true);
  const [find, setFind] = useState('');
  const [group, setGroup] = useState('');
  const [grading, setGrading] = useState(false);
  const [picked, setPicked] = useState<Picked>({ studentId: null, columnId: null });
  const { book, stale } = at;
  const rows = useMemo(
    () =>
      at.rows.filter((row) => isFound(row, find) && (group === '' || row.student.groupIds.includes(group))),
    [at.rows, find, group],
  );
  const titleOf = (id: string) => {
    const column = book.columns.find((each) => each.id === id);
    return column ? at.titleOf(column) : '';
  };
  return (
    <>
      <h1 className={styles.heading}>{book.title}</h1>
      <p className={styles.sentence}>{bookSentence(book, titleOf)}</p>
      <TwoColumns
        marginLabel="About the mark book"
        margin={<BookMargin at={at} rows={rows} picked={picked} shown={shown} names={names} />}
      >
        <div className={styles.tools}>
          <TextInput
            size="xs"
            aria-label="Find a student"
            placeholder="Find a student"
            value={find}
            onChange={(event) => setFind(event.currentTarget.value)}
          />
          {at.groups.length > 1 && (
            <select
              className={styles.select}
              aria-label="Group"
              value={group}
              onChange={(event) => setGroup(event.currentTarget.value)}
            >
              <option value="">All groups</option>
              {at.groups.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          )}
          <Radio.Group aria-label="Show" value={shown} onChange={(value) => setShown(value as ShownAs)}>
            <div className={styles.row}>
              <Radio size="xs" value="points" label="points" />
              <Radio size="xs" value="percent" label="percent" />
              <Radio size="xs" value="grade" label="grades" />
            </div>
          </Radio.Group>
          <Checkbox
            size="xs"
            label="Names"
            checked={names}
            onChange={(event) => setNames(event.currentTarget.checked)}
          />
          <Button size="compact-xs" aria-pressed={grading} onClick={() => setGrading(!grading)}>
            {grading ? 'Table' : 'Grade lines'}
          </Button>
          <span role="status" className={styles.soft}>
            {stale.length > 0
              ? `reading ${counted(stale.length, 'sitting')}…`
              : rows.length < at.rows.length
                ? `${rows.length} of ${counted(at.rows.length, 'student')}`
                : counted(rows.length, 'student')}
          </span>
        </div>
        {grading ? (
          <TotalGrades at={at} />
        ) : (
          <BookGrid at={at} rows={rows} shown={shown} names={names} picked={picked} pick={setPicked} />
        )}
      </TwoColumns>
    </>
  );
}

const plain = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

const isFound = ({ student }: BookRow, find: string) =>
  find.trim() === '' || plain(`${registerName(student)} ${student.number}`).includes(plain(find.trim()));
