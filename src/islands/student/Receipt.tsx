import { Button } from '@mantine/core';
import type { AttemptStatus } from '@/carriers/Carrier';
import { kindOf } from '@/core/kinds';
import type { HeldAttempt } from '@/store/sitTables';
import { counted, dayAndTime } from '@/ui/format';
import styles from './student.module.css';

const words: Record<AttemptStatus['state'], string> = {
  working: '',
  handedIn: 'Handed in',
  collected: 'Your teacher has taken in your paper',
  collectedByTime: 'Time is up: what was there has been handed in',
};

/** What the student takes away: that it came in, when, and how much of it. */
export function Receipt({
  held,
  status,
  done,
}: {
  held: HeldAttempt;
  status: AttemptStatus;
  done: () => void;
}) {
  const arrived = held.packet.questions.filter((question) => {
    const response = held.answers[question.id]?.response;
    return (
      status.answered.includes(question.id) && response !== undefined && !kindOf(question).isBlank(response)
    );
  });
  return (
    <section className={styles.narrow} aria-labelledby="receipt">
      <h1 id="receipt">{words[status.state]}</h1>
      <dl className={styles.facts}>
        <dt>Paper</dt>
        <dd>{held.packet.title}</dd>
        <dt>When</dt>
        <dd>{dayAndTime(status.endedAt ?? status.deadline ?? status.now, status.now)}</dd>
        <dt>Answers</dt>
        <dd>
          {arrived.length} of {counted(held.packet.questions.length, 'question')}
        </dd>
        <dt>Receipt</dt>
        <dd className={styles.receiptCode}>
          {held.attemptId
            .replace(/[^a-z0-9]/gi, '')
            .slice(0, 8)
            .toUpperCase()}
        </dd>
      </dl>
      <Button size="md" onClick={done}>
        To your papers
      </Button>
    </section>
  );
}
