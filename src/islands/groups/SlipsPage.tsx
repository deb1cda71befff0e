import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { Student, type Group } from '@/core/model/people';
import { byRegister } from '@/core/model/names';
import { newCodes } from '@/store/people';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { counted } from '@/words/format';
import { PdfPages } from '@/ui/PdfPages';
import { printPdf } from '@/ui/printPdf';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { slipsPdf } from '@/workers/makePdf';
import { Stopped } from '@/workers/stoppable';
import styles from './groups.module.css';

/** The join slips of a group: the very page that is printed, and the ways to take it out. */
export function SlipsPage({ groupId }: { groupId: string }) {
  return (
    <DeskReady>
      <Slips groupId={groupId} />
    </DeskReady>
  );
}

function Slips({ groupId }: { groupId: string }) {
  const group = useLiveQuery(async () => (await desk.groups.get(groupId)) ?? null, [groupId]);
  const students = useLiveQuery(
    () =>
      desk.students
        .where('groupIds')
        .equals(groupId)
        .filter((student) => student.archivedAt === undefined)
        .toArray(),
    [groupId],
  );
  if (group === null)
    return <EmptyState title="Group not found" action={<a href="/groups">Go to groups</a>} />;
  if (!group || !students) return null;
  if (students.length === 0)
    return (
      <EmptyState
        title={`${group.name} has no students yet`}
        action={<a href={`/groups/${groupId}`}>Add students</a>}
      />
    );
  return <Sheet group={group} students={[...students].sort(byRegister)} />;
}

function Sheet({ group, students }: { group: Group; students: Student[] }) {
  const [pdf, setPdf] = useState<Uint8Array<ArrayBuffer> | null>(null);
  // Laid out again when something that is printed changes, not with every new reading of the same rows.
  const printed = JSON.stringify(students);
  useEffect(() => {
    const work = slipsPdf(Student.array().parse(JSON.parse(printed)), group.name, window.location.origin);
    void act(work.result.catch(stopped)).then((bytes) => bytes && setPdf(bytes));
    return work.stop;
  }, [printed, group.name]);
  const name = fileNameOf(`join-slips-${group.name}`);
  return (
    <TwoColumns
      marginLabel="About the slips"
      margin={
        <>
          <MarginBlock title={counted(students.length, 'slip')}>
            <Button variant="filled" disabled={!pdf} onClick={() => pdf && printPdf(pdf)}>
              Print
            </Button>
            <Button disabled={!pdf} onClick={() => pdf && saveFile(`${name}.pdf`, 'application/pdf', pdf)}>
              Save as PDF
            </Button>
            <p className={styles.soft}>
              Cut along the dashed lines. The QR code opens the student page with the join code filled in.
            </p>
          </MarginBlock>
          <MarginBlock title="If codes got out">
            <p className={styles.soft}>
              New codes for everyone: the old ones stop working. For a single student, select the row in the{' '}
              <a href={`/groups/${group.id}`}>group</a>.
            </p>
            <Button
              onClick={() =>
                void act(
                  newCodes(
                    students.map(({ id }) => id),
                    isoNow(),
                  ),
                )
              }
            >
              New codes for all
            </Button>
          </MarginBlock>
        </>
      }
    >
      <h1 className={styles.heading}>Join slips: {group.name}</h1>
      {pdf ? <PdfPages bytes={pdf} label="Print preview of the slips" /> : <p role="status">Preparing…</p>}
    </TwoColumns>
  );
}

/** A layout that another one took the place of is no fault. */
function stopped(error: unknown): null {
  if (error instanceof Stopped) return null;
  throw error;
}
