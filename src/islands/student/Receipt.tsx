import { Button } from '@mantine/core';
import { useEffect, useState } from 'react';
import type { AttemptStatus, Carrier } from '@/carriers/Carrier';
import { kindOf } from '@/core/kinds';
import { receiptOf } from '@/core/running/watching';
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
  carrier,
  held,
  status,
  done,
  seeResult,
}: {
  carrier: Carrier;
  held: HeldAttempt;
  status: AttemptStatus;
  done: () => void;
  seeResult: () => void;
}) {
  const shown = useShownNow(carrier, held);
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
        <dd className={styles.receiptCode}>{receiptOf(held.attemptId)}</dd>
      </dl>
      {shown && (
        <Button variant="filled" size="md" onClick={seeResult}>
          See how it went
        </Button>
      )}
      <Button size="md" onClick={done}>
        To your papers
      </Button>
    </section>
  );
}

/** Whether something of the result can be seen straight after handing in. */
function useShownNow(carrier: Carrier, { joinCode, sittingId }: HeldAttempt): boolean {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    let here = true;
    carrier.home(joinCode).then(
      (sittings) => {
        const sitting = sittings.find((each) => each.sittingId === sittingId);
        if (here) setShown(sitting?.handedBack === true);
      },
      // Without an answer there is only the receipt; the list of papers asks again.
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [carrier, joinCode, sittingId]);
  return shown;
}
