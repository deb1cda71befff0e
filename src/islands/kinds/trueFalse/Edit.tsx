import { Radio, TextInput } from '@mantine/core';
import type { TrueFalse } from '@/core/kinds/trueFalse/schema';
import styles from '../edit.module.css';
import type { EditProps } from '../KindView';

export function Edit({ question, keep }: EditProps<TrueFalse>) {
  const rows = [
    { right: true, word: 'True', comment: 'commentTrue' },
    { right: false, word: 'False', comment: 'commentFalse' },
  ] as const;
  return (
    <div className={styles.rows} id="field-options">
      <span className={styles.label}>Choose the right answer.</span>
      {rows.map(({ right, word, comment }) => (
        <div key={word} className={styles.gapHead}>
          <Radio
            name={`key-${question.id}`}
            label={word}
            aria-label={`${word} is right`}
            w="5rem"
            checked={question.key === right}
            onChange={() => keep({ ...question, key: right }, `Key changed to ${word.toLowerCase()}`)}
          />
          <TextInput
            flex={1}
            size="sm"
            aria-label={`Comment for students who choose ${word.toLowerCase()}`}
            placeholder={`Shown to students who choose ${word.toLowerCase()}`}
            value={question[comment]}
            onChange={(event) =>
              keep(
                { ...question, [comment]: event.currentTarget.value },
                `Comment on ${word.toLowerCase()}`,
                `${comment}-${question.id}`,
              )
            }
          />
        </div>
      ))}
    </div>
  );
}
