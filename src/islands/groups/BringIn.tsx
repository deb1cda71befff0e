import { Button, Checkbox, NativeSelect, Table, Textarea } from '@mantine/core';
import { FileButton } from '@/ui/FileButton';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import {
  columnMeanings,
  guessColumns,
  type ColumnGuess,
  type ColumnMeaning,
} from '@/core/formats/csv/studentColumns';
import { studentRows, type BadRow, type StudentRows } from '@/core/formats/csv/studentRows';
import { tableFrom, type TableRow } from '@/core/formats/csv/table';
import type { Group, Student } from '@/core/model/people';
import { rosterChanges } from '@/core/people/rosterChanges';
import { bringIn, type BringChoices } from '@/store/people';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act, say } from '@/ui/desk/act';
import { BadRows } from '@/ui/BadRows';
import { counted } from '@/ui/format';
import { readSheet } from '@/workers/readSheet';
import type { Work } from '@/workers/stoppable';
import styles from './groups.module.css';
import { WhatChanges } from './WhatChanges';

const meaningWords: Record<ColumnMeaning, string> = {
  familyName: 'family name',
  givenName: 'given name',
  fullName: 'whole name',
  number: 'student number',
  email: 'email',
  own: 'a field of its own',
  nothing: 'leave out',
};

/** Brings students in from a pasted list or a file: what was understood is shown before anything is kept. */
export function BringIn({ group, firstOnes, done }: { group: Group; firstOnes: boolean; done: () => void }) {
  const [text, setText] = useState('');
  const [changed, setChanged] = useState<ColumnGuess | null>(null);
  const [sheet, setSheet] = useState<TableRow[] | null>(null);
  const [reading, setReading] = useState<Work<TableRow[]> | null>(null);
  const typed = useMemo(() => tableFrom(text), [text]);
  const rows = sheet ?? typed;
  const guess = useMemo(() => guessColumns(rows), [rows]);
  const take = (next: string) => {
    setText(next);
    setSheet(null);
    setChanged(null);
  };
  const read = async (file: File | null) => {
    if (!file) return;
    const work = readSheet(file);
    setReading(work);
    take('');
    const read = await act(work.result);
    setSheet(read);
    if (read?.length === 0) say(`There are no rows in ${file.name}`, true);
    setReading(null);
  };
  return (
    <div className={styles.bringIn}>
      <p>
        Paste rows from a sheet or a list, or choose a CSV, XLSX or ODS file. Columns are guessed and shown
        before anything is kept.
      </p>
      <Textarea
        aria-label="List of students"
        placeholder={'Family name, given name, number, email\nOkafor, Amara, 2201, amara@example.org'}
        autosize
        minRows={4}
        maxRows={8}
        value={text}
        onChange={(event) => take(event.currentTarget.value)}
      />
      <div className={styles.row}>
        <FileButton onChange={(file) => void read(file)} accept=".csv,.tsv,.txt,.xlsx,.ods">
          {(props) => <Button {...props}>Choose a file</Button>}
        </FileButton>
        {reading && (
          <>
            <span role="status">Reading the file…</span>
            <Button onClick={reading.stop}>Stop</Button>
          </>
        )}
        {!firstOnes && <Button onClick={done}>Back to the list</Button>}
      </div>
      {rows.length > 0 && (
        <Understood
          rows={rows}
          columns={changed ?? guess}
          setColumns={setChanged}
          group={group}
          done={done}
        />
      )}
    </div>
  );
}

interface UnderstoodProps {
  rows: TableRow[];
  columns: ColumnGuess;
  setColumns: (columns: ColumnGuess) => void;
  group: Group;
  done: () => void;
}

function Understood({ rows, columns, setColumns, group, done }: UnderstoodProps) {
  const known = useLiveQuery(() => desk.students.toArray());
  const body = columns.hasHeader ? rows.slice(1) : rows;
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
      <Checkbox
        label="The first row names the columns"
        checked={columns.hasHeader}
        onChange={(event) => setColumns({ ...columns, hasHeader: event.currentTarget.checked })}
      />
      <div className={styles.preview}>
        <Table verticalSpacing={3}>
          <Table.Thead>
            <Table.Tr>
              <Table.Th>Line</Table.Th>
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
            {body.slice(0, 5).map((row) => (
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
      {body.length > 5 && <p className={styles.soft}>and {counted(body.length - 5, 'more row')}</p>}
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
  const changes = useMemo(() => rosterChanges(good, known, group.id), [good, known, group.id]);
  const bring = async () => {
    if (await act(bringIn(group.id, good, isoNow(), choices))) done();
  };
  return (
    <>
      <BadRows rows={bad.map((row) => ({ line: row.line, why: badWords(row) }))} />
      <WhatChanges changes={changes} choices={choices} choose={setChoices} />
      <div className={styles.row}>
        <Button variant="filled" size="sm" disabled={good.length === 0} onClick={() => void bring()}>
          {bad.length > 0
            ? `Bring in the ${counted(good.length, 'good one')}`
            : `Bring in ${counted(good.length, 'student')}`}
        </Button>
        {bad.length > 0 && (
          <Button
            size="sm"
            onClick={() => {
              say('Nothing was brought in');
              done();
            }}
          >
            Bring in none
          </Button>
        )}
      </div>
    </>
  );
}

function badWords(row: BadRow): string {
  const words: Record<BadRow['reason'], string> = {
    noName: 'it has no name',
    sameNumber: `student number ${row.cell} is on line ${row.firstLine} already`,
    badEmail: `“${row.cell}” is not an email address`,
    tooLong: `“${row.cell}” is too long`,
  };
  return words[row.reason];
}
