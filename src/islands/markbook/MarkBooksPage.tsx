import { Button, Checkbox, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { createMarkBook, markBooks } from '@/store/markBooks';
import { groupRows } from '@/store/queries';
import { isoNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import styles from './markbook.module.css';

/** Every mark book, and beginning one. */
export function MarkBooksPage() {
  return (
    <DeskReady>
      <Books />
    </DeskReady>
  );
}

function Books() {
  const books = useLiveQuery(markBooks);
  const groups = useLiveQuery(groupRows);
  if (!books || !groups) return null;
  const nameOf = new Map(groups.map(({ group }) => [group.id, group.name]));
  return (
    <>
      <h1 className={styles.heading}>Mark books</h1>
      <TwoColumns marginLabel="New mark book" margin={<NewBook groups={groups} />}>
        {books.length === 0 ? (
          <EmptyState title="No mark books yet">
            A mark book sets all sittings of a course side by side, with weights and totals. Choose its groups
            in the margin.
          </EmptyState>
        ) : (
          <ul className={styles.books}>
            {books.map(({ id, title, groupIds, columns }) => (
              <li key={id}>
                <a href={`/mark-books/${id}`}>{title}</a>{' '}
                <span className={styles.soft}>
                  {groupIds.flatMap((groupId) => nameOf.get(groupId) ?? []).join(', ')} ·{' '}
                  {counted(columns.length, 'column')}
                </span>
              </li>
            ))}
          </ul>
        )}
      </TwoColumns>
    </>
  );
}

function NewBook({ groups }: { groups: Awaited<ReturnType<typeof groupRows>> }) {
  const [title, setTitle] = useState('');
  const [picked, setPicked] = useState<readonly string[]>([]);
  const courses = [...new Set(groups.flatMap(({ group }) => group.course ?? []))];
  const create = async () => {
    const made = await act(createMarkBook(title.trim(), picked, isoNow()));
    if (made) window.location.assign(`/mark-books/${made.result}`);
  };
  return (
    <MarginBlock title="New mark book">
      <form
        className={styles.fields}
        onSubmit={(event) => {
          event.preventDefault();
          void create();
        }}
      >
        <TextInput
          label="Name"
          size="sm"
          maxLength={200}
          value={title}
          onChange={(event) => setTitle(event.currentTarget.value)}
        />
        {courses.map((course) => (
          <Button
            key={course}
            size="compact-xs"
            onClick={() => {
              setTitle(title || course);
              setPicked(groups.flatMap(({ group }) => (group.course === course ? [group.id] : [])));
            }}
          >
            All groups of {course}
          </Button>
        ))}
        {groups.map(({ group, students }) => (
          <Checkbox
            key={group.id}
            size="sm"
            label={`${group.name} (${students})`}
            checked={picked.includes(group.id)}
            onChange={(event) =>
              setPicked(
                event.currentTarget.checked ? [...picked, group.id] : picked.filter((id) => id !== group.id),
              )
            }
          />
        ))}
        <Button type="submit" variant="filled" disabled={!title.trim() || picked.length === 0}>
          Create mark book
        </Button>
      </form>
    </MarginBlock>
  );
}
