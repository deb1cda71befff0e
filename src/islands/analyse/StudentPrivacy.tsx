import { Button, Modal } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { fileNameOf } from '@/core/formats/fileName';
import { fullName } from '@/core/model/names';
import type { Student } from '@/core/model/people';
import { act } from '@/desk/act';
import { backupSavedAt } from '@/store/deskSettings';
import { forgetStudent, holdingsOf, type StudentHoldings } from '@/store/forget';
import { studentData } from '@/store/studentData';
import { isoNow } from '@/ui/clock';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock } from '@/ui/TwoColumns';
import { copyNow } from '@/workers/copies';
import { counted, dayAndTime } from '@/words/format';
import { studentDataPage } from '@/words/studentData';
import styles from './analyse.module.css';

/** What a student may ask for: to read all that is held, and to be forgotten. */
export function StudentPrivacy({ student }: { student: Student }) {
  const [asking, setAsking] = useState(false);
  const name = fullName(student);
  const save = async () => {
    const data = await studentData(student.id);
    if (data) saveFile(`${fileNameOf(name)}.html`, 'text/html', studentDataPage(data, isoNow()));
  };
  return (
    <MarginBlock title="Their data">
      <div className={styles.privacy}>
        <Button size="xs" onClick={() => void save()}>
          Save all data about this student
        </Button>
        <Button size="xs" onClick={() => setAsking(true)}>
          Forget this student…
        </Button>
      </div>
      {asking && <Forget student={student} close={() => setAsking(false)} />}
    </MarginBlock>
  );
}

function Forget({ student, close }: { student: Student; close: () => void }) {
  const holds = useLiveQuery(() => holdingsOf(student.id), [student.id]);
  const saved = useLiveQuery(backupSavedAt);
  const name = fullName(student);
  const forget = async () => {
    if (!(await act(forgetStudent(student.id, isoNow())))) return;
    copyNow();
    window.location.assign('/groups');
  };
  return (
    <Modal
      opened
      onClose={close}
      title={`Forget ${name} permanently?`}
      closeButtonProps={{ 'aria-label': 'Close' }}
    >
      {holds && (
        <p className={styles.said}>
          This deletes the name, number, email and join code{whatGoes(holds)}, and what the record of changes
          holds of them. Figures are worked out without this student from then on.
        </p>
      )}
      <p className={styles.said}>
        Automatic backups made before go with the next one, and what lies on the classroom server when the
        desk next reaches it. Backup files that you saved yourself still hold this student
        {saved ? `: the last was saved ${dayAndTime(saved, Date.now())}. Delete them` : ''}.
      </p>
      <p className={styles.said}>You can’t undo this.</p>
      <div className={styles.modalRow}>
        {/* What can be done without harm has the focus and the strong colour. */}
        <Button variant="filled" data-autofocus onClick={close}>
          Cancel
        </Button>
        <Button onClick={() => void forget()}>Forget permanently</Button>
      </div>
    </Modal>
  );
}

/** ", 3 attempts in 2 sittings with all answers and files, 2 marks"; what there is none of is not named. */
function whatGoes({ attempts, sittings, marks, pages, messages }: StudentHoldings): string {
  const all = [
    attempts &&
      `${counted(attempts, 'attempt')} in ${counted(sittings, 'sitting')} with all answers and files`,
    marks && counted(marks, 'mark'),
    pages && counted(pages, 'scanned page'),
    messages && counted(messages, 'message'),
  ];
  return all.map((each) => (each ? `, ${each}` : '')).join('');
}
