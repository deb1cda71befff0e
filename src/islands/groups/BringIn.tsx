import { Button, NativeSelect, Table } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import {
  columnMeanings,
  columnsUnder,
  guessColumns,
  type ColumnGuess,
  type ColumnMeaning,
} from '@/core/formats/csv/studentColumns';
import { bodyOf } from '@/core/formats/csv/heading';
import { studentRows, type BadRow, type StudentRows } from '@/core/formats/csv/studentRows';
import type { TableRow } from '@/core/formats/csv/table';
import type { Group, Student } from '@/core/model/people';
import { placesOf, sameGroup } from '@/core/people/places';
import { joinedChanges, rosterChanges } from '@/core/people/rosterChanges';
import { bringIn, type BringChoices } from '@/store/people';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import { BadRows } from '@/ui/BadRows';
import { counted } from '@/words/format';
import { HeadingChoice, SheetSource } from '@/desk/SheetSource';
import sticky from '@/ui/stickyEnd.module.css';
import styles from './groups.module.css';
import { WhatChanges } from './WhatChanges';

const meaningWords: Record<ColumnMeaning, string> = {
  familyName: 'family name',
  givenName: 'given name',
  fullName: 'whole name',
  number: 'student number',
  email: 'email',
  group: 'group',
  own: 'a field of your own',
  nothing: 'leave out',
};

/** Brings students in from a pasted list or a file: what was understood is shown before anything is kept. */
export function BringIn({ group, firstOnes, done }: { group: Group; firstOnes: boolean; done: () => void }) {
  return (
    <div className={styles.bringIn}>
      <p>
        Paste rows from a spreadsheet or a list, or choose a CSV, XLSX or ODS file. You can check the columns
        before you import.
      </p>
      <SheetSource
        label="List of students"
        placeholder={'Family name, given name, number, email\nOkafor, Amara, 2201, amara@example.org'}
        beside={!firstOnes && <Button onClick={done}>Back to the list</Button>}
      >
        {(rows, key) => <Understood key={key} rows={rows} group={group} done={done} />}
      </SheetSource>
    </div>
  );
}

/** So many rows are shown before they are kept; the rest by asking for it. */
const firstShown = 15;

interface UnderstoodProps {
  rows: TableRow[];
  group: Group;
  done: () => void;
}

function Understood({ rows, group, done }: UnderstoodProps) {
  const known = useLiveQuery(() => desk.students.toArray());
  const guess = useMemo(() => guessColumns(rows), [rows]);
  const [changed, setColumns] = useState<ColumnGuess | null>(null);
  const [all, setAll] = useState(false);
  const columns = changed?.meanings.length === guess.meanings.length ? changed : guess;
  const body = useMemo(() => bodyOf(rows, columns.heading), [rows, columns.heading]);
  const shown = all ? body : body.slice(0, firstShown);
  const read = useMemo(
    () => (known ? studentRows(body, columns.meanings, known, columns.names) : null),
    [known, body, columns],
  );
  const setMeaning = (column: number, meaning: ColumnMeaning) =>
    setColumns({
      ...columns,
      meanings: columns.meanings.map((each, index) => (index === column ? meaning : each)),
    });
  return (
    <>
      <HeadingChoice
        rows={rows}
        heading={columns.heading}
        choose={(heading) => setColumns(columnsUnder(rows, heading))}
      />
      <div className={styles.preview}>
        <Table verticalSpacing={3}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Row</Table.Th>
              {columns.meanings.map((meaning, column) => (
                <Table.Th key={column}>
                  <NativeSelect
                    size="xs"
                    aria-label={`Column ${column + 1} is`}
                    value={meaning}
                    data={columnMeanings.map((each) => ({ value: each, label: meaningWords[each] }))}
                    onChange={(event) => setMeaning(column, event.currentTarget.value as ColumnMeaning)}
                  />
                </Table.Th>
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {shown.map((row) => (
              <Table.Tr key={row.line}>
                <Table.Td>{row.line}</Table.Td>
                {columns.meanings.map((_, column) => (
                  <Table.Td key={column}>{row.cells[column] ?? ''}</Table.Td>
                ))}
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </div>
      {shown.length < body.length && (
        <div className={styles.row}>
          <span className={styles.soft}>and {counted(body.length - shown.length, 'more row')}</span>
          <Button onClick={() => setAll(true)}>Show all rows</Button>
        </div>
      )}
      {read && known && <Decide read={read} known={known} group={group} done={done} />}
    </>
  );
}

interface DecideProps {
  read: StudentRows;
  known: Student[];
  group: Group;
  done: () => void;
}

function Decide({ read, known, group, done }: DecideProps) {
  const { good, bad } = read;
  const [choices, setChoices] = useState<BringChoices>({ update: true, takeOutGone: false });
  const groups = useLiveQuery(() => desk.groups.toArray());
  const places = useMemo(() => placesOf(good, group.name), [good, group.name]);
  const idOf = (name: string | null) =>
    name === null ? group.id : (groups?.find((each) => sameGroup(each.name, name))?.id ?? null);
  const changes = joinedChanges(
    places.map((place) => rosterChanges(place.students, known, idOf(place.group))),
  );
  const bring = async () => {
    if (await act(bringIn(group.id, good, isoNow(), choices))) done();
  };
  return (
    <>
      <BadRows rows={bad.map((row) => ({ line: row.line, why: badWords(row) }))} />
      {places.some((place) => place.group !== null) && (
        <p>
          Into{' '}
          {places
            .map(
              (place) =>
                `${place.group ?? group.name}${idOf(place.group) === null ? ' (a new group)' : ''}: ${place.students.length}`,
            )
            .join(', ')}
        </p>
      )}
      <WhatChanges changes={changes} choices={choices} choose={setChoices} />
      <div className={sticky.end}>
        <Button variant="filled" size="sm" disabled={good.length === 0} onClick={() => void bring()}>
          {bad.length > 0
            ? `Import ${counted(good.length, 'valid row')}`
            : `Import ${counted(good.length, 'student')}`}
        </Button>
        {bad.length > 0 && (
          <Button
            size="sm"
            onClick={() => {
              say('Nothing was imported');
              done();
            }}
          >
            Cancel
          </Button>
        )}
      </div>
    </>
  );
}

function badWords(row: BadRow): string {
  const words: Record<BadRow['reason'], string> = {
    noName: 'it has no name',
    sameNumber: `student number ${row.cell} is already in row ${row.firstLine}`,
    badEmail: `“${row.cell}” isn’t a valid email address`,
    tooLong: `“${row.cell}” is too long`,
  };
  return words[row.reason];
}
