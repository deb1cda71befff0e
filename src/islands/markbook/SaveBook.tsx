import { Button } from '@mantine/core';
import { csvFrom, type Cell } from '@/core/formats/csv/table';
import { fileNameOf } from '@/core/formats/fileName';
import { act, say } from '@/desk/act';
import { csvForm } from '@/store/exportForms';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import { workbookOf } from '@/workers/readSheet';
import type { ShownAs } from './BookGrid';
import { bookTable } from '@/core/formats/takeout/markBook';
import type { BookAtHand, BookRow } from './useMarkBook';
import styles from './markbook.module.css';

interface SaveBookProps {
  at: BookAtHand;
  rows: readonly BookRow[];
  shown: ShownAs;
  names: boolean;
}

/** The book as it is shown, as a file. */
export function SaveBook({ at, rows, shown, names }: SaveBookProps) {
  const save = async (as: 'csv' | 'xlsx' | 'ods') => {
    const table: Cell[][] = bookTable(at.book, rows, at.titleOf, { shown, names, scales: at.scales });
    const name = `${fileNameOf(at.book.title)}.${as}`;
    if (as === 'csv') saveFile(name, 'text/csv;charset=utf-8', csvFrom(table, (await csvForm()) ?? {}));
    else {
      const bytes = await act(workbookOf(table, at.book.title, as).result);
      if (!bytes) return;
      saveFile(name, 'application/octet-stream', bytes);
    }
    say(`${counted(rows.length, 'student')} saved as ${name}`);
  };
  return (
    <MarginBlock title="Export">
      <p className={styles.soft}>
        {counted(rows.length, 'student')}, as {shown === 'grade' ? 'grades' : shown}.
      </p>
      <div className={styles.row}>
        {(['xlsx', 'ods', 'csv'] as const).map((as) => (
          <Button
            key={as}
            size="compact-sm"
            disabled={rows.length === 0}
            aria-label={`Save the mark book as ${as.toUpperCase()}`}
            onClick={() => void save(as)}
          >
            {as.toUpperCase()}
          </Button>
        ))}
      </div>
    </MarginBlock>
  );
}
