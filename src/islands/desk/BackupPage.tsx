import { Button, Modal } from '@mantine/core';
import { FileButton } from '@/ui/FileButton';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { backupFrom, backupText, backupVersion, type Backup, type BackupFault } from '@/core/formats/backup';
import { deskTables, emptyTables, replaceDesk } from '@/store/backup';
import { backupSavedAt, setBackupSavedAt } from '@/store/deskSettings';
import { desk } from '@/store/tables';
import { isoNow, useNow } from '@/ui/clock';
import { act, say } from '@/ui/desk/act';
import { DeskReady } from '@/ui/desk/DeskReady';
import { counted, dayAndTime } from '@/ui/format';
import { saveFile } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import styles from './BackupPage.module.css';

/** The whole desk as one file, and back again. */
export function BackupPage() {
  return (
    <DeskReady>
      <BackupView />
    </DeskReady>
  );
}

function BackupView() {
  const here = useLiveQuery(deskCounts);
  const saved = useLiveQuery(backupSavedAt);
  const now = useNow(30_000);
  const [offered, setOffered] = useState<Backup | null>(null);
  const [emptying, setEmptying] = useState(false);
  const [fault, setFault] = useState('');
  const save = async () => {
    const at = isoNow();
    await act(setBackupSavedAt(at));
    saveFile(
      `gribbet-desk-${at.slice(0, 16).replace(':', '')}.json`,
      'application/json',
      await backupText(await deskTables(), at),
    );
    say('The whole desk is saved to a file');
  };
  const read = async (file: File | null) => {
    if (!file) return;
    const outcome = await backupFrom(await file.text());
    setFault('fault' in outcome ? `${file.name}: ${faultWords(outcome.fault)}` : '');
    setOffered('backup' in outcome ? outcome.backup : null);
  };
  const replace = async (tables: Backup['tables'], said: string) => {
    if ((await act(replaceDesk(tables).then(() => true))) !== true) return;
    setOffered(null);
    setEmptying(false);
    say(said);
  };
  return (
    <TwoColumns
      marginLabel="About this desk"
      margin={
        <MarginBlock title="On this desk now">
          <p>{here}</p>
          <p className={styles.soft}>
            {saved ? `Last saved to a file ${dayAndTime(saved, now)}.` : 'Not saved to a file yet.'}
          </p>
        </MarginBlock>
      }
    >
      <h1 className={styles.heading}>The whole desk as one file</h1>
      <section className={styles.part}>
        <h2>Save it</h2>
        <p>
          Everything is kept in this browser. A file of it lets you go on at another computer, or come back to
          how it was.
        </p>
        <Button variant="filled" onClick={() => void save()}>
          Save the whole desk
        </Button>
      </section>
      <section className={styles.part}>
        <h2>Put one back</h2>
        <p>The file is read and checked first. Nothing changes before you have seen what is in it.</p>
        <FileButton onChange={(file) => void read(file)} accept=".json,application/json">
          {(props) => <Button {...props}>Choose a desk file</Button>}
        </FileButton>
        {fault && (
          <p role="alert" className={styles.fault}>
            {fault}
          </p>
        )}
      </section>
      <section className={styles.part} id="empty">
        <h2>Start with an empty desk</h2>
        <p>Takes everything off this desk for good. Save it first if you may want it again.</p>
        <Button onClick={() => setEmptying(true)}>Empty the desk</Button>
      </section>
      <Sure
        opened={offered !== null}
        title="Put this desk in place of yours"
        go="Put it in place, for good"
        close={() => setOffered(null)}
        run={() => {
          if (offered)
            void replace(offered.tables, `The desk of ${dayAndTime(offered.savedAt, now)} is in place`);
        }}
      >
        The file was saved {offered && dayAndTime(offered.savedAt, now)} and holds{' '}
        {offered && countsOf(offered.tables)}. What is on this desk now goes for good: {here}.
      </Sure>
      <Sure
        opened={emptying}
        title="Empty the desk"
        go="Empty it, for good"
        close={() => setEmptying(false)}
        run={() => void replace(emptyTables, 'The desk is empty')}
      >
        This goes for good: {here}.
      </Sure>
    </TwoColumns>
  );
}

interface SureProps {
  opened: boolean;
  title: string;
  /** What the button does, in full. */
  go: string;
  children: React.ReactNode;
  run: () => void;
  close: () => void;
}

function Sure({ opened, title, go, children, run, close }: SureProps) {
  return (
    <Modal
      opened={opened}
      onClose={close}
      title={title}
      closeButtonProps={{ 'aria-label': 'Leave it as it is' }}
    >
      <p className={styles.sure}>{children}</p>
      <div className={styles.row}>
        <Button variant="filled" onClick={run}>
          {go}
        </Button>
        <Button onClick={close}>Leave it as it is</Button>
      </div>
    </Modal>
  );
}

async function deskCounts(): Promise<string> {
  const [students, groups, papers, sittings, attempts] = await Promise.all([
    desk.students.count(),
    desk.groups.count(),
    desk.papers.count(),
    desk.sittings.count(),
    desk.attempts.count(),
  ]);
  return countWords(students, groups, papers, sittings, attempts);
}

const countsOf = (tables: Backup['tables']) =>
  countWords(
    tables.students.length,
    tables.groups.length,
    tables.papers.length,
    tables.sittings.length,
    tables.attempts.length,
  );

function countWords(
  students: number,
  groups: number,
  papers: number,
  sittings: number,
  attempts: number,
): string {
  return `${counted(students, 'student')}, ${counted(groups, 'group')}, ${counted(papers, 'paper')}, ${counted(sittings, 'sitting')} and ${counted(attempts, 'attempt')}`;
}

function faultWords(fault: BackupFault): string {
  switch (fault.code) {
    case 'notJson':
      return `the file is damaged or not a desk file (${fault.detail}). Nothing was changed.`;
    case 'foreign':
      return 'this is not a desk file. Nothing was changed.';
    case 'newer':
      return `it was saved by a newer Gribbet (version ${fault.version}); this one reads up to version ${backupVersion}. Nothing was changed.`;
    case 'changed':
      return 'the file is damaged: what is in it is not what was saved. Nothing was changed. Take another copy.';
    case 'double':
      return `at ${fault.path}: “${fault.key}” is there twice. Nothing was changed.`;
    case 'damaged':
      return `at ${fault.path}: ${fault.expected}${fault.more > 0 ? `, and ${fault.more} more places` : ''}. Nothing was changed.`;
    case 'loose':
      return `at ${fault.path}: it points to something the file does not hold. Nothing was changed.`;
  }
}
