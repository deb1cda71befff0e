import { Button } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { Carrier } from '@/carriers/Carrier';
import { kindOf } from '@/core/kinds';
import type { HeldAttempt } from '@/store/sitTables';
import { useNow } from '@/ui/clock';
import { PaperQuestions, responsesOf } from '../kinds/PaperQuestions';
import { AttemptBar } from './AttemptBar';
import { LastLook } from './LastLook';
import { Receipt } from './Receipt';
import { useAttempt } from './useAttempt';
import styles from './student.module.css';

interface AttemptViewProps {
  carrier: Carrier;
  held: HeldAttempt;
  done: () => void;
}

/** Sitting the paper: the whole sheet, with time, state and a way to every question across the top. */
export function AttemptView({ carrier, held: initial, done }: AttemptViewProps) {
  const { held, status, keeping, refused, aheadMs, respond, toggleComeBack, handIn } = useAttempt(
    carrier,
    initial,
  );
  const [looking, setLooking] = useState(false);
  const now = useNow(500) + aheadMs;
  const { questions } = held.packet;
  const leftMs = status?.deadline == null ? null : status.deadline - now;
  const timeUp = leftMs !== null && leftMs <= 0 && status?.state === 'working';

  const sent = useRef(false);
  useEffect(() => {
    if (!timeUp || sent.current) return;
    sent.current = true;
    void handIn().finally(() => (sent.current = false));
  }, [timeUp, handIn]);

  if (status && status.state !== 'working') return <Receipt held={held} status={status} done={done} />;

  const answered = (id: string) => {
    const question = questions.find((each) => each.id === id);
    const response = held.answers[id]?.response;
    return question !== undefined && response !== undefined && !kindOf(question).isBlank(response);
  };
  const goTo = (id: string) => {
    setLooking(false);
    requestAnimationFrame(() => {
      const section = document.getElementById(`question-${id}`);
      section?.scrollIntoView({ block: 'start' });
      section?.querySelector<HTMLElement>('input, textarea, select')?.focus({ preventScroll: true });
    });
  };
  return (
    <>
      <AttemptBar
        held={held}
        leftMs={leftMs}
        keeping={keeping}
        answered={answered}
        goTo={goTo}
        lastLook={looking ? null : () => setLooking(true)}
      />
      {refused.length > 0 && (
        <p role="alert">
          Not taken by the desk, because it is too much: {refused.join(', ')}. Your other answers are kept.
          Tell your teacher, or put in a smaller file.
        </p>
      )}
      {looking ? (
        <LastLook
          held={held}
          answered={answered}
          goTo={goTo}
          handIn={handIn}
          back={() => setLooking(false)}
        />
      ) : (
        <>
          <h1 className={styles.heading}>{held.packet.title}</h1>
          <PaperQuestions
            questions={questions}
            parts={held.packet.parts ?? []}
            responseTo={responsesOf(held.answers)}
            respond={respond}
            below={(question) => {
              const marked = held.comeBack.includes(question.id);
              return (
                <button
                  type="button"
                  className={styles.quiet}
                  aria-pressed={marked}
                  onClick={() => toggleComeBack(question.id)}
                >
                  {marked ? 'You will come back to this; take the mark off' : 'Mark to come back to'}
                </button>
              );
            }}
          />
          <Button variant="filled" size="md" onClick={() => setLooking(true)}>
            Last look before handing in
          </Button>
        </>
      )}
    </>
  );
}
