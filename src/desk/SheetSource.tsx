import { Button, NativeSelect } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { useMemo, useState, type ReactNode } from 'react';
import type { TableRow } from '@/core/formats/csv/table';
import { textRows } from '@/core/formats/csv/textRows';
import { Refused, type OrRefused } from '@/core/basics/refused';
import { readSheet } from '@/workers/readSheet';
import type { Work } from '@/workers/stoppable';
import { act } from './act';
import { FileButton } from '../ui/FileButton';
import { refusalWords } from '@/words/losses';
import styles from './sheetSource.module.css';

type Reading = OrRefused<TableRow[]>;

interface SheetSourceProps {
  label: string;
  placeholder: string;
  /** Stands beside the button that chooses a file. */
  beside?: ReactNode;
  /** What was understood of the rows, with a key that is another one for every file. */
  children: (rows: TableRow[], key: string) => ReactNode;
}

/** Rows that are pasted, or read from a CSV, XLSX or ODS file; what cannot be read is refused with its place. */
export function SheetSource({ label, placeholder, beside, children }: SheetSourceProps) {
  const [text, setText] = useState('');
  const [file, setFile] = useState<{ name: string; read: Reading } | null>(null);
  const [reading, setReading] = useState<Work<Reading> | null>(null);
  const typed = useMemo(() => rowsOrRefused(text), [text]);
  const take = async (chosen: File | null) => {
    if (!chosen) return;
    const work = readSheet(chosen);
    setReading(work);
    setText('');
    setFile(null);
    const read = await act(work.result);
    if (read) setFile({ name: chosen.name, read });
    setReading(null);
  };
  const read = file?.read ?? typed;
  return (
    <>
      <GrowingTextarea
        aria-label={label}
        placeholder={placeholder}
        minRows={4}
        maxRows={8}
        value={text}
        onChange={(event) => {
          setText(event.currentTarget.value);
          setFile(null);
        }}
      />
      <div className={styles.row}>
        <FileButton onChange={(chosen) => void take(chosen)} accept=".csv,.tsv,.txt,.xlsx,.ods">
          {(props) => <Button {...props}>Choose a file</Button>}
        </FileButton>
        {reading && (
          <>
            <span role="status">Reading the file…</span>
            <Button onClick={reading.stop}>Stop</Button>
          </>
        )}
        {beside}
      </div>
      {'refused' in read && <p role="alert">{refusalWords(read.refused, file?.name)}</p>}
      {file && 'read' in read && read.read.length === 0 && (
        <p role="alert">{file.name}: it has no rows. Nothing was changed.</p>
      )}
      {'read' in read && read.read.length > 0 && children(read.read, file?.name ?? '')}
    </>
  );
}

function rowsOrRefused(text: string): Reading {
  try {
    return { read: textRows(text) };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return { refused: error };
  }
}

/** A heading stands in one of the first rows. */
const mostShown = 10;

interface HeadingChoiceProps {
  rows: readonly TableRow[];
  heading: number | null;
  choose: (heading: number | null) => void;
}

/** Which row names the columns; what stands above it is left out, and so said. */
export function HeadingChoice({ rows, heading, choose }: HeadingChoiceProps) {
  const shown = rows.slice(0, mostShown);
  return (
    <NativeSelect
      className={styles.heading}
      label="Column names are in"
      description={heading ? 'Rows above it are left out.' : undefined}
      value={heading === null ? '' : String(heading)}
      data={[
        { value: '', label: 'no row' },
        ...shown.map(({ line, cells }, index) => ({
          value: String(index),
          label: `row ${line}: ${cells.filter(Boolean).join(', ').slice(0, 60)}`,
        })),
      ]}
      onChange={(event) => {
        const { value } = event.currentTarget;
        choose(value === '' ? null : Number(value));
      }}
    />
  );
}
