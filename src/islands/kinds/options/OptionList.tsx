import type { PickedResponse, StudentOption } from '@/core/kinds/options';
import { optionLetter } from '@/core/kinds/optionLetter';
import { Rich } from '@/ui/Rich';
import type { ShowProps, SitProps } from '../KindView';
import styles from './OptionList.module.css';

interface WithOptions {
  id: string;
  options: StudentOption[];
}

/** Options to pick from, with large targets for a thumb. */
export function OptionPicker({
  question,
  response,
  respond,
  labelledBy,
  disabled,
  several,
}: SitProps<WithOptions, PickedResponse> & { several: boolean }) {
  const picked = response?.picked ?? [];
  const toggle = (id: string) => {
    if (!several) return respond({ picked: [id] });
    respond({ picked: picked.includes(id) ? picked.filter((each) => each !== id) : [...picked, id] });
  };
  return (
    <div role={several ? 'group' : 'radiogroup'} aria-labelledby={labelledBy} className={styles.list}>
      {question.options.map((option, index) => (
        <label key={option.id} className={styles.option}>
          <input
            type={several ? 'checkbox' : 'radio'}
            name={question.id}
            checked={picked.includes(option.id)}
            disabled={disabled}
            onChange={() => toggle(option.id)}
          />
          <span className={styles.letter}>{optionLetter(index)}</span>
          <Rich text={option.text} />
        </label>
      ))}
      {!several && picked.length > 0 && !disabled && (
        <button type="button" className={styles.clear} onClick={() => respond({ picked: [] })}>
          Clear my choice
        </button>
      )}
    </div>
  );
}

/** The options with what was picked, for a look at an answer. */
export function PickedOptions({ question, response }: ShowProps<WithOptions, PickedResponse>) {
  const picked = response?.picked ?? [];
  return (
    <ul className={styles.shown}>
      {question.options.map((option, index) => {
        const chosen = picked.includes(option.id);
        return (
          <li key={option.id} className={chosen ? styles.chosen : undefined}>
            <span className={styles.letter}>{optionLetter(index)}</span>
            <Rich text={option.text} />
            {chosen && <span className={styles.tag}>chosen</span>}
          </li>
        );
      })}
    </ul>
  );
}
