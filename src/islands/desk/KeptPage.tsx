import { Table } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import type { ReactNode } from 'react';
import { CopyWords } from '@/desk/CopyWords';
import { DeskReady } from '@/desk/DeskReady';
import { keptWhere, type KeptWhere } from '@/store/keptWhere';
import { useNow } from '@/ui/clock';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, dayAlone } from '@/words/format';
import styles from './BackupPage.module.css';
import { CourseTable } from './CourseTable';

/** What is kept where and until when, in the numbers of this moment. */
export function KeptPage() {
  return (
    <DeskReady>
      <Kept />
    </DeskReady>
  );
}

interface Place {
  where: string;
  what: ReactNode;
  until: ReactNode;
}

const onDevices = ({ deviceAttempts, devicePapers }: KeptWhere): Place[] => [
  {
    where: 'This browser as a student’s device',
    what: `${counted(deviceAttempts, 'attempt')}, ${counted(devicePapers, 'paper')} carried by hand`,
    until: 'Until this browser’s data are cleared.',
  },
  {
    where: 'Students’ own devices',
    what: 'Each student’s own answers and results. Nobody here can count them.',
    until: 'Until your desk has the answers, or the student clears the browser’s data.',
  },
];

function placesOf(kept: KeptWhere): Place[] {
  const { students, sittings, attempts, files } = kept;
  return [
    {
      where: 'This browser: your desk',
      what: `${counted(students, 'student')}, ${counted(sittings, 'sitting')}, ${counted(attempts, 'attempt')} with answers and marks, ${counted(files, 'picture or file', 'pictures and files')}`,
      until: (
        <>
          Until you delete it: a sitting in Run, a student in the register, or{' '}
          <a href="/backup#empty">all of the desk</a>.
        </>
      ),
    },
    {
      where: 'This browser: record of changes',
      what: kept.actsSince
        ? `${counted(kept.acts, 'change')} since ${dayAlone(kept.actsSince)}`
        : 'No changes yet',
      until:
        'Of changes older than 30 days, but for the last 200, only what was done is kept, no longer what was changed.',
    },
    {
      where: 'Automatic backups',
      what: <CopyWords savedAt={kept.savedAt} />,
      until: (
        <>
          Newer ones take the place of older ones. <a href="/backup">Set them up</a>. Files you saved yourself
          are yours to delete.
        </>
      ),
    },
    {
      where: 'Classroom server',
      what: kept.paired
        ? `${counted(kept.onServer, 'sitting')} that students sit on their own devices, with their answers; keys and scripts sealed`
        : 'Nothing: this desk is not paired with a server',
      until: 'Until you take a sitting off the server, or delete it.',
    },
    ...onDevices(kept),
    {
      where: 'Outbox',
      what:
        kept.messagesWaiting > 0
          ? `${counted(kept.messages, 'message')}, ${kept.messagesWaiting} not sent yet`
          : counted(kept.messages, 'message'),
      until: (
        <>
          Until you delete them in the <a href="/outbox">outbox</a>.
        </>
      ),
    },
  ];
}

function Kept() {
  const kept = useLiveQuery(keptWhere);
  const now = useNow(60_000);
  if (!kept) return null;
  return (
    <TwoColumns
      marginLabel="About what is kept"
      margin={
        <MarginBlock title="One student">
          <p>
            A student may ask for all you hold about them, or to be forgotten. Both are on the student’s page:
            find it by name with Ctrl K.
          </p>
          <p>
            <a href="/guide/privacy">Read about privacy</a>
          </p>
        </MarginBlock>
      }
    >
      <h1 className={styles.heading}>What is kept where</h1>
      <Table.ScrollContainer minWidth={280}>
        <Table verticalSpacing="xs">
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">Where</Table.Th>
              <Table.Th scope="col">What, now</Table.Th>
              <Table.Th scope="col">Until when</Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {placesOf(kept).map(({ where, what, until }) => (
              <Table.Tr key={where}>
                <Table.Th scope="row">{where}</Table.Th>
                <Table.Td>{what}</Table.Td>
                <Table.Td>{until}</Table.Td>
              </Table.Tr>
            ))}
          </Table.Tbody>
        </Table>
      </Table.ScrollContainer>
      <section className={styles.part}>
        <h2>Answers by course</h2>
        <p className={styles.soft}>
          Set how long answers are kept. When the time is over you are asked, on the desk and here; nothing
          goes by itself.
        </p>
        <CourseTable courses={kept.courses} now={now} />
      </section>
    </TwoColumns>
  );
}
