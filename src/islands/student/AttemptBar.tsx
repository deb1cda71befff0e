import { numbersOf } from '@/core/kinds/items';
import type { HeldAttempt } from '@/store/sitTables';
import { clockTime, countdown } from '@/ui/format';
import type { Keeping } from './useAttempt';
import styles from './student.module.css';

interface AttemptBarProps {
  held: HeldAttempt;
  /** Null: no limit. */
  leftMs: number | null;
  keeping: Keeping;
  answered: (questionId: string) => boolean;
  goTo: (questionId: string) => void;
  /** Null while the last look is open. */
  lastLook: (() => void) | null;
}

/** Time left, whether all is kept, and a square for every question. */
export function AttemptBar({ held, leftMs, keeping, answered, goTo, lastLook }: AttemptBarProps) {
  const { questions } = held.packet;
  const numbers = numbersOf(questions);
  const count = questions.filter((question) => answered(question.id)).length;
  return (
    <div className={styles.attemptBar}>
      <div className={styles.attemptFacts}>
        <span className={leftMs !== null && leftMs < 5 * 60_000 ? styles.timeShort : styles.time}>
          {leftMs === null ? 'no time limit' : `${countdown(leftMs)} left`}
        </span>
        <span>
          {count} of {questions.length} answered
        </span>
        <span className={styles.soft}>{keepingWords(keeping)}</span>
        <span role="status" className="visuallyHidden">
          {timeWarning(leftMs)}
        </span>
        {lastLook && (
          <button type="button" className={styles.quiet} onClick={lastLook}>
            Last look
          </button>
        )}
      </div>
      <nav aria-label="Questions" className={styles.map}>
        {questions.map((question) => {
          const state = answered(question.id);
          const marked = held.comeBack.includes(question.id);
          const label = `Question ${numbers.get(question.id)}: ${state ? 'answered' : 'not answered'}${marked ? ', come back to it' : ''}`;
          return (
            <button
              key={question.id}
              type="button"
              aria-label={label}
              className={[styles.square, state ? styles.done : styles.open, marked && styles.marked]
                .filter(Boolean)
                .join(' ')}
              onClick={() => goTo(question.id)}
            >
              {numbers.get(question.id)}
            </button>
          );
        })}
      </nav>
    </div>
  );
}

function keepingWords(keeping: Keeping): string {
  if (keeping.state === 'kept') return `kept ${clockTime(keeping.at)}`;
  return keeping.state === 'keeping' ? 'keeping…' : 'kept on this device; the desk does not answer';
}

/** Said quietly by screen readers at five minutes and one. */
function timeWarning(leftMs: number | null): string {
  if (leftMs === null) return '';
  if (leftMs < 60_000) return 'Less than one minute left. What is there will be handed in.';
  return leftMs < 5 * 60_000 ? 'Less than five minutes left.' : '';
}
