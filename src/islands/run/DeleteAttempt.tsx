import { Button, Modal } from '@mantine/core';
import { useState } from 'react';
import { fullName } from '@/core/model/people';
import type { Attempt } from '@/core/model/sitting';
import type { Seat } from '@/core/running/standing';
import { receiptOf } from '@/core/running/watching';
import { deleteAttempt } from '@/store/exceptions';
import { isoNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import type { SittingData } from '@/ui/desk/useSitting';
import { counted, dayAndTime } from '@/ui/format';
import styles from './run.module.css';

interface DeleteAttemptProps {
  seat: Seat;
  attempt: Attempt;
  sitting: SittingData;
  done: () => void;
}

/** The one act that nothing takes back: it asks first, and names what goes. */
export function DeleteAttempt({ seat, attempt, sitting, done }: DeleteAttemptProps) {
  const [asking, setAsking] = useState(false);
  const marks = sitting.marks.filter((mark) => mark.attemptId === attempt.id).length;
  const remove = async () => {
    if (!(await act(deleteAttempt(attempt.id, isoNow())))) return;
    setAsking(false);
    done();
  };
  const goes = [
    counted(Object.keys(attempt.answers).length, 'answer'),
    ...(attempt.files?.length ? [counted(attempt.files.length, 'file')] : []),
    counted(marks, 'mark'),
  ];
  return (
    <>
      <Button size="compact-md" onClick={() => setAsking(true)}>
        Delete for good…
      </Button>
      <Modal
        opened={asking}
        onClose={() => setAsking(false)}
        title={`Delete attempt ${attempt.number} of ${fullName(seat.student)} for good?`}
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        <p>
          It was begun {dayAndTime(attempt.startedAt, sitting.now)}, receipt {receiptOf(attempt.id)}. With it
          go {goes.join(', ')}, and its whole record. Nothing brings it back. Setting it aside keeps it out of
          every figure and can be taken back.
        </p>
        <div className={styles.modalRow}>
          <Button variant="filled" onClick={() => void remove()}>
            Delete it for good
          </Button>
          <Button onClick={() => setAsking(false)}>Keep it</Button>
        </div>
      </Modal>
    </>
  );
}
