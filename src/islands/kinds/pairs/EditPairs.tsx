import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { omitBy } from 'remeda';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { PairItem, PairsQuestion } from '@/core/kinds/pairs';
import type { Question } from '@/core/kinds';
import styles from '../edit.module.css';
import type { KeepQuestion } from '../KindView';
import { workedLine } from '../PartPoints';
import { TakeOut } from '../text/AcceptedRows';

interface EditPairsProps<Q> {
  question: Q;
  keep: KeepQuestion<Q>;
  /** What a target is called: "Partner", "Category". */
  target: string;
  targetsTitle: string;
  itemsTitle: string;
}

/** Items, what they can be put to, and where each belongs. */
export function EditPairs<Q extends PairsQuestion & Question>({
  question,
  keep,
  target,
  targetsTitle,
  itemsTitle,
}: EditPairsProps<Q>) {
  const change = (part: Partial<PairsQuestion>, said: string, field?: string) =>
    keep({ ...question, ...part }, said, field);
  const fresh = () => ({ id: nanoid(12), text: '' });
  const withText = (rows: PairItem[], id: string, text: string) =>
    rows.map((row) => (row.id === id ? { ...row, text } : row));
  const choices = [
    { value: '', label: 'doesn’t belong anywhere' },
    ...question.targets.map(({ id, text }, index) => ({
      value: id,
      label: `${optionLetter(index)}  ${text}`,
    })),
  ];
  return (
    <div className={styles.rows}>
      <div className={styles.rows} id="field-targets" role="group" aria-label={targetsTitle}>
        <span className={styles.label}>{targetsTitle}</span>
        {question.targets.map((row, index) => {
          const letter = optionLetter(index);
          return (
            <div key={row.id} className={`${styles.row} ${styles.item}`}>
              <span className={styles.letter} aria-hidden>
                {letter}
              </span>
              <TextInput
                id={`field-target-${row.id}`}
                size="sm"
                aria-label={`${target} ${letter}`}
                value={row.text}
                onChange={(event) =>
                  change(
                    { targets: withText(question.targets, row.id, event.currentTarget.value) },
                    `${target} ${letter} edited`,
                    `target-${row.id}`,
                  )
                }
              />
              <TakeOut
                what={`${target.toLowerCase()} ${letter}`}
                onClick={() =>
                  change(
                    {
                      targets: question.targets.filter((each) => each.id !== row.id),
                      key: omitBy(question.key, (id) => id === row.id),
                    },
                    `${target} ${letter} removed`,
                  )
                }
              />
            </div>
          );
        })}
        <Button
          size="compact-sm"
          className={styles.add}
          onClick={() => change({ targets: [...question.targets, fresh()] }, `${target} added`)}
        >
          Add another {target.toLowerCase()}
        </Button>
      </div>
      <div className={styles.rows} id="field-items" role="group" aria-label={itemsTitle}>
        <span className={styles.label}>{itemsTitle}</span>
        {question.items.map((row, index) => (
          <div key={row.id} className={`${styles.row} ${styles.paired}`}>
            <span className={styles.letter} aria-hidden>
              {index + 1}
            </span>
            <TextInput
              id={`field-item-${row.id}`}
              size="sm"
              aria-label={`Item ${index + 1}`}
              value={row.text}
              onChange={(event) =>
                change(
                  { items: withText(question.items, row.id, event.currentTarget.value) },
                  `Item ${index + 1} edited`,
                  `item-${row.id}`,
                )
              }
            />
            <NativeSelect
              size="sm"
              aria-label={`Item ${index + 1} belongs to`}
              value={question.key[row.id] ?? ''}
              data={choices}
              onChange={(event) => {
                const { [row.id]: _, ...rest } = question.key;
                const id = event.currentTarget.value;
                change({ key: id ? { ...rest, [row.id]: id } : rest }, `Key of item ${index + 1} changed`);
              }}
            />
            <TakeOut
              what={`item ${index + 1}`}
              onClick={() => {
                const { [row.id]: _, ...key } = question.key;
                change(
                  { items: question.items.filter((each) => each.id !== row.id), key },
                  `Item ${index + 1} removed`,
                );
              }}
            />
          </div>
        ))}
        <Button
          size="compact-sm"
          className={styles.add}
          onClick={() => change({ items: [...question.items, fresh()] }, 'Item added')}
        >
          Add an item
        </Button>
      </div>
      <Checkbox
        size="sm"
        label="A wrong pair loses what a right one gives, never below 0"
        description={workedLine(question)}
        checked={question.wrongTakesOff}
        onChange={(event) => change({ wrongTakesOff: event.currentTarget.checked }, 'Part points changed')}
      />
    </div>
  );
}
