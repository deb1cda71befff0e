import { Button, Textarea, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { SchemeLine } from '@/core/kinds/schemeLine';
import { schemeTotal } from '@/core/kinds/schemePoints';
import { points } from '@/words/format';
import { PointsField } from '@/ui/PointsField';
import styles from '../edit.module.css';
import { TakeOut } from './AcceptedRows';

/** What a marker goes by. */
export interface Scheme {
  modelAnswer: string;
  scheme: SchemeLine[];
}

interface SchemeEditProps {
  value: Scheme;
  /** The points that are given by hand. */
  worth: number;
  change: (value: Scheme, said: string, field?: string) => void;
}

/** A model answer and the lines to look for. */
export function SchemeEdit({ value, worth, change }: SchemeEditProps) {
  const keepScheme = (scheme: SchemeLine[], said: string, field?: string) =>
    change({ ...value, scheme }, said, field);
  return (
    <div className={styles.rows}>
      <Textarea
        id="field-modelAnswer"
        label="Model answer"
        autosize
        minRows={2}
        size="sm"
        value={value.modelAnswer}
        onChange={(event) =>
          change({ ...value, modelAnswer: event.currentTarget.value }, 'Model answer edited', 'model')
        }
      />
      <div className={styles.rows} id="field-scheme">
        <span className={styles.label}>
          Mark scheme: what to look for. The lines add up to {points(schemeTotal(value.scheme))} of{' '}
          {points(worth)}.
        </span>
        {value.scheme.map((line, index) => (
          <SchemeRow
            key={line.id}
            line={line}
            letter={optionLetter(index)}
            change={(next, said, field) =>
              keepScheme(
                value.scheme.map((each) => (each.id === next.id ? next : each)),
                said,
                field,
              )
            }
            remove={() =>
              keepScheme(
                value.scheme.filter((each) => each.id !== line.id),
                `Line ${optionLetter(index)} removed`,
              )
            }
          />
        ))}
        {value.scheme.length < 26 && (
          <Button
            size="compact-sm"
            className={styles.add}
            onClick={() =>
              keepScheme([...value.scheme, { id: nanoid(12), text: '', points: 1 }], 'Scheme line added')
            }
          >
            Add a line
          </Button>
        )}
      </div>
    </div>
  );
}

interface SchemeRowProps {
  line: SchemeLine;
  letter: string;
  change: (line: SchemeLine, said: string, field?: string) => void;
  remove: () => void;
}

function SchemeRow({ line, letter, change, remove }: SchemeRowProps) {
  return (
    <div className={`${styles.row} ${styles.line}`}>
      <span aria-hidden className={styles.letter}>
        {letter}
      </span>
      <TextInput
        id={`field-line-${line.id}`}
        aria-label={`Scheme line ${letter}`}
        size="sm"
        value={line.text}
        onChange={(event) =>
          change({ ...line, text: event.currentTarget.value }, `Line ${letter} edited`, `line-${line.id}`)
        }
      />
      <PointsField
        size="sm"
        label={`Points for line ${letter}`}
        min={-1000}
        value={line.points}
        onPoints={(worth) => {
          if (worth !== null)
            change({ ...line, points: worth }, `Points for line ${letter} changed`, `line-points-${line.id}`);
        }}
      />
      <TakeOut what={`line ${letter}`} onClick={remove} />
    </div>
  );
}
