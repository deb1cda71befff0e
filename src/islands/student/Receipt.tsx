import { useCallback, useEffect, useState } from 'react';
import type { AttemptStatus, Carrier, HomeSitting } from '@/carriers/Carrier';
import { fillOf } from '@/core/kinds/fillings';
import { receiptOf } from '@/core/attempts/receipt';
import type { HeldAttempt } from '@/store/sitTables';
import { counted, dayAndTime } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { SaveAnswers } from './SittingFromFile';
import { lateCounts, LateWords } from './LateWords';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

const words: Record<AttemptStatus['state'], string> = {
  working: '',
  handedIn: 'Handed in',
  collected: 'Your teacher has collected your paper',
  collectedByTime: 'Time is up: your answers were handed in',
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
  const [row, again] = useRow(carrier, held);
  const inFile = row?.inFile !== undefined;
  const lateIds = new Set(
    status.late.filter(({ counts }) => counts !== true).map(({ questionId }) => questionId),
  );
  const fills = held.packet.questions
    .filter(({ id }) => status.answered.includes(id) && !lateIds.has(id))
    .map((question) => fillOf(question, held.answers[question.id]?.response));
  const arrived = fills.filter((fill) => fill !== 'open').length;
  const half = fills.filter((fill) => fill === 'half').length;
  return (
    <section className={styles.narrow} aria-labelledby="receipt">
      <ViewHeading id="receipt" text={inFile ? 'Finished' : words[status.state]} />
      {row?.inFile === 'toSave' && (
        <p className={styles.waits}>
          Your answers are on this computer only. Save them as a file and give that to your teacher.
        </p>
      )}
      <dl className={styles.facts}>
        <dt>Paper</dt>
        <dd>{held.packet.title}</dd>
        <dt>When</dt>
        <dd>{dayAndTime(status.endedAt ?? status.deadline ?? status.now, status.now)}</dd>
        <dt>Answers</dt>
        <dd>
          {arrived} of {counted(held.packet.questions.length, 'question')}
          {half > 0 && `, ${half} of them half answered`}
        </dd>
        <dt>Receipt</dt>
        <dd className={styles.receiptCode}>{receiptOf(held.attemptId)}</dd>
      </dl>
      <LateWords late={lateCounts(status.late)} waiting={held.unsent.length + held.apart.length} />
      {inFile && (
        <SaveAnswers
          carrier={carrier}
          joinCode={held.joinCode}
          sittingId={held.sittingId}
          next={row.inFile === 'toSave'}
          saved={again}
        />
      )}
      {row?.handedBack && (
        <Button variant="filled" size="md" onClick={seeResult}>
          See how I did
        </Button>
      )}
      <Button size="md" onClick={done}>
        Go to your papers
      </Button>
    </section>
  );
}

/** How this paper stands now: whether something of it can be seen straight away, and whether it has to be carried. */
function useRow(carrier: Carrier, { joinCode, sittingId }: HeldAttempt): [HomeSitting | null, () => void] {
  const [row, setRow] = useState<HomeSitting | null>(null);
  const look = useCallback(async () => {
    try {
      const sittings = await carrier.home(joinCode);
      setRow(sittings.find((each) => each.sittingId === sittingId) ?? null);
    } catch {
      // Without an answer there is only the receipt; the list of papers asks again.
    }
  }, [carrier, joinCode, sittingId]);
  useEffect(() => void look(), [look]);
  return [row, () => void look()];
}
