import type { PairsResponse, StudentPairsQuestion } from '@/core/kinds/pairs';
import { NativeSelect } from '@/ui/plain/fields';
import type { ShowProps, SitProps } from '../KindView';
import styles from '../sit.module.css';

/** Each item with a list to choose its target from: the same by mouse, finger, keys and screen reader. */
export function SitPairs({
  question,
  response,
  respond,
  labelledBy,
  disabled,
}: SitProps<StudentPairsQuestion, PairsResponse>) {
  const pairs = response?.pairs ?? {};
  const choices = [
    { value: '', label: 'choose' },
    ...question.targets.map(({ id, text }) => ({ value: id, label: text })),
  ];
  const choose = (itemId: string, targetId: string) => {
    const { [itemId]: _, ...rest } = pairs;
    respond({ pairs: targetId ? { ...rest, [itemId]: targetId } : rest });
  };
  return (
    <div role="group" aria-labelledby={labelledBy} className={styles.rows}>
      {question.items.map((item) => (
        <div key={item.id} className={styles.pair}>
          <label htmlFor={`${question.id}-${item.id}`} className="keepLines">
            {item.text}
          </label>
          <NativeSelect
            id={`${question.id}-${item.id}`}
            disabled={disabled ?? false}
            value={pairs[item.id] ?? ''}
            data={choices}
            onChange={(event) => choose(item.id, event.currentTarget.value)}
          />
        </div>
      ))}
    </div>
  );
}

/** Each item with what it was put to. */
export function ShowPairs({ question, response }: ShowProps<StudentPairsQuestion, PairsResponse>) {
  return (
    <ul className={styles.shown}>
      {question.items.map((item) => {
        const target = question.targets.find((each) => each.id === response?.pairs[item.id]);
        return (
          <li key={item.id} className={target ? undefined : styles.left}>
            {item.text} → {target ? <strong>{target.text}</strong> : 'not answered'}
          </li>
        );
      })}
    </ul>
  );
}
