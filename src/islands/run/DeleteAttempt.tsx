import { Button, Modal } from '@mantine/core';
import { useState } from 'react';
import { fullName } from '@/core/model/names';
import type { Attempt } from '@/core/model/sitting';
import { receiptOf } from '@/core/attempts/receipt';
import { deleteAttempts } from '@/store/exceptions';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { sourceWords } from '@/words/attempts';
import { counted, dayAndTime } from '@/words/format';
import styles from './run.module.css';

interface DeleteAttemptProps {
  attempts: Attempt[];
  sitting: SittingData;
  done: () => void;
}

/** The one act that nothing takes back: it asks first, and names what goes. */
export function DeleteAttempt({ attempts, sitting, done }: DeleteAttemptProps) {
  const [asking, setAsking] = useState(false);
  const nameOf = ({ studentId }: Attempt) => {
    const student = sitting.students.find((each) => each.id === studentId);
    return student ? fullName(student) : 'a student';
  };
  const remove = async () => {
    const ids = attempts.map(({ id }) => id);
    if (!(await act(deleteAttempts(ids, isoNow())))) return;
    setAsking(false);
    done();
  };
  const [only] = attempts.length === 1 ? attempts : [];
  return (
    <>
      <Button size="compact-md" onClick={() => setAsking(true)}>
        Delete permanently…
      </Button>
      <Modal
        opened={asking}
        onClose={() => setAsking(false)}
        title={
          only
            ? `Delete attempt ${only.number} of ${nameOf(only)} permanently?`
            : `Delete ${attempts.length} attempts permanently?`
        }
        closeButtonProps={{ 'aria-label': 'Close' }}
      >
        {only ? (
          <p>
            {only.source
              ? `Its answers were imported ${sourceWords[only.source]}.`
              : `It was started ${dayAndTime(only.startedAt, sitting.now)}, receipt ${receiptOf(only.id)}.`}{' '}
            This also deletes {whatGoes(only, sitting)}, and its whole record.
          </p>
        ) : (
          <ul className={styles.going}>
            {attempts.map((attempt) => (
              <li key={attempt.id}>
                {nameOf(attempt)}, attempt {attempt.number}: {whatGoes(attempt, sitting)}
              </li>
            ))}
          </ul>
        )}
        <p>
          You can’t undo this. Setting {only ? 'it' : 'them'} aside also keeps {only ? 'it' : 'them'} out of
          all figures, and can be undone.
        </p>
        <div className={styles.modalRow}>
          {/* What can be done without harm has the focus and the strong colour. */}
          <Button variant="filled" data-autofocus onClick={() => setAsking(false)}>
            Cancel
          </Button>
          <Button onClick={() => void remove()}>Delete permanently</Button>
        </div>
      </Modal>
    </>
  );
}

/** "12 answers, 1 file, 3 marks" */
function whatGoes(attempt: Attempt, sitting: SittingData): string {
  const marks = sitting.marks.filter((mark) => mark.attemptId === attempt.id).length;
  return [
    counted(Object.keys(attempt.answers).length, 'answer'),
    ...(attempt.files?.length ? [counted(attempt.files.length, 'file')] : []),
    counted(marks, 'mark'),
  ].join(', ');
}
