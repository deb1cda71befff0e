import { Checkbox } from '@mantine/core';
import type { FileQuestion, FileSort } from '@/core/kinds/file/schema';
import { fileSorts, sortWords } from '@/core/kinds/file/sorts';
import { PointsField } from '@/ui/PointsField';
import styles from '../edit.module.css';
import type { EditProps } from '../KindView';
import { SchemeEdit } from '../text/SchemeEdit';

const sorts = Object.keys(fileSorts) as FileSort[]; // the keys of a literal object are its names

export function Edit({ question, keep }: EditProps<FileQuestion>) {
  const toggled = (sort: FileSort) =>
    sorts.filter((each) => (each === sort) !== question.sorts.includes(each));
  return (
    <div className={styles.rows}>
      <div className={styles.choices} role="group" aria-label="Accepted files">
        <span className={styles.label}>Accept:</span>
        {sorts.map((sort) => (
          <Checkbox
            key={sort}
            size="sm"
            label={fileSorts[sort].label}
            checked={question.sorts.includes(sort)}
            onChange={() => keep({ ...question, sorts: toggled(sort) }, 'Accepted files changed')}
          />
        ))}
        <span>
          <PointsField
            label="Maximum number of files"
            size="sm"
            min={1}
            max={10}
            value={question.most}
            onPoints={(most) => {
              if (most !== null)
                keep({ ...question, most: Math.round(most) }, 'Number of files', `most-${question.id}`);
            }}
          />
        </span>
        <span className={styles.soft}>at most</span>
      </div>
      <p className={styles.soft}>
        Students are asked for {sortWords(question.sorts)}
        {question.most > 1 ? `, up to ${question.most} of them` : ''}.
      </p>
      <SchemeEdit
        value={question}
        worth={question.points}
        change={(marking, said, field) =>
          keep({ ...question, ...marking }, said, field && `${field}-${question.id}`)
        }
      />
    </div>
  );
}
