import { kindOf, type Question } from '@/core/kinds';
import { optionLetter } from '@/core/kinds/options';
import { fullName } from '@/core/model/people';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { schemeOf } from '@/core/marking/scheme';
import type { Seat } from '@/core/running/standing';
import { awardGlyph } from '@/ui/awardGlyph';
import { FillGlyph } from '@/ui/FillGlyph';
import { points } from '@/ui/format';
import { KeptTextarea } from '@/ui/KeptTextarea';
import { KeyHint } from '@/ui/KeyHint';
import { viewOf } from '../kinds';
import styles from './mark.module.css';

interface AnswerRowProps {
  question: Question;
  group: SameAnswers;
  index: number;
  current: boolean;
  names: Seat[] | null;
  enterDoes: string;
  choose: () => void;
  comment: (text: string) => void;
}

/** Equal answers as one row: how many, what they say, and what they have. */
export function AnswerRow({
  question,
  group,
  index,
  current,
  names,
  enterDoes,
  choose,
  comment,
}: AnswerRowProps) {
  const [first] = group.answers;
  const kept = first?.mark?.comment ?? '';
  const { drawn } = viewOf(question);
  return (
    <div className={current ? styles.currentRow : styles.row}>
      <div
        className={styles.answer}
        data-row={index}
        role="button"
        tabIndex={current ? 0 : -1}
        aria-current={current ? 'true' : undefined}
        aria-label={`${group.blank ? 'Left blank' : group.text}. ${group.answers.length} times. ${standing(group, question)}`}
        onClick={choose}
        onFocus={() => !current && choose()}
        onKeyDown={() => undefined}
      >
        <span className={styles.count}>{group.answers.length > 1 ? `×${group.answers.length}` : ''}</span>
        <span className={group.blank ? styles.blank : `keepLines ${styles.text}`}>
          {group.blank ? (
            'left blank'
          ) : drawn && !current ? (
            <Answer question={question} group={group} small />
          ) : drawn ? (
            <span className={styles.hint}>{group.text.replaceAll('\n', ', ')}</span>
          ) : (
            group.text
          )}
          {names && <span className={styles.names}>{namesOf(group, names)}</span>}
          {!current && kept && <span className={styles.comment}>{kept}</span>}
        </span>
        <span className={styles.state}>
          {first && <FillGlyph {...awardGlyph(first.award)} waiting={group.waiting > 0} size={16} />}
          {standing(group, question)}
        </span>
      </div>
      {current && drawn && !group.blank && (
        <div className={styles.drawn}>
          <Answer question={question} group={group} />
        </div>
      )}
      {current && (
        <div className={styles.beside}>
          <KeptTextarea
            size="xs"
            aria-label="Comment, seen by the student once handed back"
            placeholder="Tab: a comment the student will see"
            value={kept}
            onKeep={comment}
            onKeyDown={(event) => {
              if (event.key !== 'Escape' && (event.key !== 'Enter' || event.shiftKey)) return;
              event.preventDefault();
              event.currentTarget
                .closest(`.${styles.currentRow}`)
                ?.querySelector<HTMLElement>('[data-row]')
                ?.focus();
            }}
          />
          <span className={styles.hint}>
            <KeyHint keys="Enter" /> {enterDoes}
          </span>
        </div>
      )}
    </div>
  );
}

/** What was answered, as it looks. */
function Answer({
  question,
  group,
  small = false,
}: {
  question: Question;
  group: SameAnswers;
  small?: boolean;
}) {
  const { Show } = viewOf(question);
  const [first] = group.answers;
  return (
    <Show
      question={kindOf(question).forStudent(question, `${first?.attemptId ?? ''} ${question.id}`)}
      response={first?.response ?? null}
      small={small}
    />
  );
}

/** "2 / 3  A C": points and scheme lines, or what is missing. */
function standing(group: SameAnswers, question: Question): string {
  const lines = group.answers[0]?.mark?.lines ?? [];
  const letters = schemeOf(question).flatMap((line, index) =>
    lines.includes(line.id) ? optionLetter(index) : [],
  );
  const parts: string[] = [];
  if (group.uneven)
    parts.push(group.waiting > 0 ? `${group.waiting} of them wait` : 'equal answers, unequal points');
  else if (group.points === null) parts.push(group.waiting > 0 ? 'waits' : 'no key yet');
  else parts.push(`${points(group.points)} / ${points(question.points)}`);
  if (letters.length > 0) parts.push(letters.join(' '));
  if (group.answers.some((answer) => answer.award.state === 'overridden')) parts.push('overridden');
  if (group.nearMiss) parts.push(`nearly “${group.nearMiss.text}”`);
  if (group.aside) parts.push('aside');
  return parts.join('  ');
}

function namesOf(group: SameAnswers, seats: Seat[]): string {
  const ids = new Set(group.answers.map((answer) => answer.studentId));
  return seats
    .filter((seat) => ids.has(seat.student.id))
    .map((seat) => fullName(seat.student))
    .join(', ');
}
