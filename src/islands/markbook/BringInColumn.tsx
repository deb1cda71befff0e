import { Button } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { useMemo, useState } from 'react';
import { broughtIn } from '@/core/formats/broughtIn';
import type { MarkBookColumn } from '@/core/model/markBook';
import { MarginBlock } from '@/ui/TwoColumns';
import { done } from '@/words/done';
import { counted } from '@/words/format';
import type { BookAtHand } from './useMarkBook';
import styles from './markbook.module.css';

const whyWords = {
  unknown: 'no such student here',
  noPoints: 'no points at its end',
  twice: 'the same student again',
};

/** Points for a typed column from lines of a student and a number. */
export function BringInColumn({
  at,
  column,
}: {
  at: BookAtHand;
  column: Extract<MarkBookColumn, { kind: 'typed' }>;
}) {
  const [text, setText] = useState('');
  const students = useMemo(() => at.rows.map(({ student }) => student), [at.rows]);
  const read = useMemo(() => broughtIn(text, students), [text, students]);
  const count = Object.keys(read.values).length;
  return (
    <MarginBlock title="Import points">
      <div className={styles.fields}>
        <GrowingTextarea
          aria-label="Points by student"
          description="One line each: number, email or name, then the points. Paste from a sheet."
          size="sm"
          minRows={2}
          maxRows={8}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        {read.bad.length > 0 && (
          <ul className={styles.steps}>
            {read.bad.slice(0, 6).map(({ line, text: words, why }) => (
              <li key={line}>
                line {line}: {whyWords[why]} (“{words}”)
              </li>
            ))}
            {read.bad.length > 6 && <li>and {read.bad.length - 6} more</li>}
          </ul>
        )}
        <Button
          disabled={count === 0}
          onClick={() => {
            at.setColumn({ ...column, values: { ...column.values, ...read.values } }, done.markBookChanged);
            setText('');
          }}
        >
          {count === 0 ? 'Import points' : `Import points of ${counted(count, 'student')}`}
        </Button>
      </div>
    </MarginBlock>
  );
}
