import type { AttemptStatus } from '@/carriers/Carrier';
import type { StudentQuestion } from '@/core/kinds';
import type { Answer } from '@/core/model/sitting';
import { clockTime } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { viewOf } from '../kinds';
import styles from './student.module.css';

interface ChoiceOfTwoProps {
  question: StudentQuestion;
  choice: AttemptStatus['choices'][number];
  choose: (answer: Answer, inView: readonly Answer[]) => void;
}

/** What was typed on another device without either knowing of the other: both are kept, and the student chooses. */
export function ChoiceOfTwo({ question, choice, choose }: ChoiceOfTwoProps) {
  const { Show } = viewOf(question);
  const { counts, others } = choice;
  return (
    <div className={styles.choice} role="group" aria-label="Another answer you gave">
      {others.map((other, index) => (
        <div key={index}>
          <p>You also answered this on another device or in another tab, at {clockTime(other.at)}:</p>
          <Show question={question} response={other.response} />
          <Button size="md" onClick={() => choose(other, [counts, ...others])}>
            Use this one instead
          </Button>
        </div>
      ))}
      <p className={styles.soft}>The answer above counts. Both are kept, and your teacher can read them.</p>
      <Button size="md" onClick={() => choose(counts, [counts, ...others])}>
        Keep the answer above
      </Button>
    </div>
  );
}
