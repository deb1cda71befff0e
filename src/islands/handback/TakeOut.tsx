import { Button, Checkbox } from '@mantine/core';
import { useState } from 'react';
import { gradesCsv } from '@/core/formats/csv/grades';
import { say } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { counted } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './handback.module.css';

/** The grades as a file. */
export function TakeOut({ sitting }: { sitting: SittingData }) {
  const [withMark, setWithMark] = useState(true);
  const save = () => {
    const csv = gradesCsv(sitting.questions, sitting.seats, sitting.groups, Date.now(), withMark);
    saveFile(`grades-${fileNameOf(sitting.sitting.title)}.csv`, 'text/csv;charset=utf-8', csv);
    say(`Grades of ${counted(sitting.seats.length, 'student')} saved as CSV`);
  };
  return (
    <MarginBlock title="Export">
      <p className={styles.soft}>
        One row per student: name, number, email, group, total, state, times and points per question.
      </p>
      <Checkbox
        size="sm"
        label="With a byte order mark (if accents look wrong)"
        checked={withMark}
        onChange={(event) => setWithMark(event.currentTarget.checked)}
      />
      <Button onClick={save}>Grades as CSV</Button>
    </MarginBlock>
  );
}
