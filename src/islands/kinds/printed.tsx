import { Fragment } from 'react';
import { segmentsOf } from '@/core/kinds/gaps/gapText';
import type { StudentGaps } from '@/core/kinds/gaps/schema';
import type { StudentOption } from '@/core/kinds/options';
import { optionLetter } from '@/core/kinds/optionLetter';
import type { PairItem, StudentPairsQuestion } from '@/core/kinds/pairs';
import { plainText } from '@/core/basics/richWords';
import { Rich } from '@/ui/Rich';
import styles from './print.module.css';

/** Parts of questions on paper: what there is to tick, to number and to write on. */

export function PrintedOptions({
  options,
  several,
}: {
  options: readonly StudentOption[];
  several: boolean;
}) {
  return (
    <ul className={styles.options}>
      {options.map((option, index) => (
        <li key={option.id}>
          <span className={`${styles.box} ${several ? '' : styles.round}`} />
          <span className={styles.letter}>{optionLetter(index)}</span>
          <Rich text={option.text} />
        </li>
      ))}
    </ul>
  );
}

/** Lines to write on, where room is wanted. */
export function PrintedLines({ count }: { count: number }) {
  return Array.from({ length: count }, (_, index) => <div key={index} className={styles.line} />);
}

export function PrintedGaps({ question }: { question: StudentGaps }) {
  return (
    <p className="keepLines">
      {segmentsOf(question.text, question.gaps).map((segment, index) =>
        'text' in segment ? (
          <Fragment key={index}>{segment.text}</Fragment>
        ) : segment.gap.options ? (
          <Fragment key={index}>
            ({segment.gap.options.map((option) => plainText(option.text)).join(' / ')})
          </Fragment>
        ) : (
          <span key={index} className={styles.short}>
            &nbsp;
          </span>
        ),
      )}
    </p>
  );
}

/** Items with room for a letter, and what the letters stand for beside them. */
export function PrintedPairs({ question }: { question: StudentPairsQuestion }) {
  return (
    <div className={styles.columns}>
      <PrintedOptions options={question.items} several />
      <ul className={styles.options}>
        {question.targets.map((target, index) => (
          <li key={target.id}>
            <span className={styles.letter}>{index + 1}</span>
            {target.text}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Items with a box for the place of each. */
export function PrintedItems({ items }: { items: readonly PairItem[] }) {
  return (
    <ul className={styles.options}>
      {items.map((item) => (
        <li key={item.id}>
          <span className={styles.box} />
          {item.text}
        </li>
      ))}
    </ul>
  );
}
