import { version } from '@/core/basics/version';
import { Button, Checkbox, Modal } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { emptyTables, replaceDesk } from '@/store/backup';
import { backupSavedAt, setBackupSavedAt } from '@/store/deskSettings';
import { deskCounts } from '@/store/deskCounts';
import { picturesSize } from '@/store/onPaper';
import { desk } from '@/store/tables';
import { isoNow, useNow } from '@/ui/clock';
import { act, say } from '@/desk/act';
import { holdsWords } from '@/words/backups';
import { CopyWords } from '@/desk/CopyWords';
import { DeskReady } from '@/desk/DeskReady';
import { PutBack, Working, type PartRead, type Readable } from '@/desk/PutBack';
import { dayAndTime, fileSize } from '@/words/format';
import { saveBlob } from '@/ui/saveFile';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { savedDesk } from '@/workers/backupWork';
import styles from './BackupPage.module.css';
import { CopyPlaces } from './CopyPlaces';
import type { ClashChoice } from '@/core/formats/backup/joinPart';
import { JoinPart } from './JoinPart';
import { SavePart } from './SavePart';

/** The whole desk as one file, and back again. */
export function BackupPage() {
  return (
    <DeskReady>
      <BackupView />
    </DeskReady>
  );
}

/** A backup that was read and waits to be put in place. */
interface Offered {
  found: Readable;
  put: () => Promise<boolean>;
  leave: () => void;
}

function BackupView() {
  const here = useLiveQuery(async () => holdsWords(await deskCounts()));
  const saved = useLiveQuery(backupSavedAt);
  const now = useNow(30_000);
  const [offered, setOffered] = useState<Offered | null>(null);
  const [part, setPart] = useState<{ found: PartRead; leave: () => void } | null>(null);
  const [emptying, setEmptying] = useState(false);
  const [emptied, setEmptied] = useState(false);
  const putInPlace = async ({ found, put }: Offered) => {
    setOffered(null);
    if (await put()) say(`The backup from ${dayAndTime(found.savedAt, now)} is restored`);
  };
  const takeIn = async ({ found }: { found: PartRead }, choices: [string, ClashChoice][]) => {
    setPart(null);
    if (await found.join(choices)) say(`${found.part} is on this desk now`);
  };
  const empty = async () => {
    setEmptying(false);
    if ((await act(replaceDesk(emptyTables).then(() => true))) !== true) return;
    setEmptied(true);
    say('The desk is empty');
  };
  return (
    <TwoColumns
      marginLabel="About this desk"
      margin={
        <MarginBlock title="On this desk now">
          <p>{here}</p>
          <p className={styles.soft}>
            <CopyWords savedAt={saved} />
          </p>
          <p>
            <a href="/kept">See what is kept where</a>
          </p>
          <p>
            <a href="/computers">Use this desk on another computer</a>
          </p>
          <p className={styles.soft}>Gribbet {version}; its backups say so, too.</p>
        </MarginBlock>
      }
    >
      <h1 className={styles.heading}>Backup of the whole desk</h1>
      <SaveDesk />
      <SavePart />
      <CopyPlaces />
      <section className={styles.part}>
        <h2>Restore a backup</h2>
        <p>
          The file is checked first. Nothing changes until you have seen what is in it. A file that holds one
          course or one sitting is added to this desk; any other takes its place.
        </p>
        <PutBack
          offer={(found, put, leave) => setOffered({ found, put, leave })}
          offerPart={(found, leave) => setPart({ found, leave })}
        />
      </section>
      {part && (
        <JoinPart
          found={part.found}
          now={now}
          join={(choices) => void takeIn(part, choices)}
          cancel={() => {
            part.leave();
            setPart(null);
          }}
        />
      )}
      <section className={styles.part} id="empty">
        <h2>Start with an empty desk</h2>
        <p>Deletes everything on this desk permanently. Save a backup first if you might want it again.</p>
        {emptied ? (
          <Button variant="filled" component="a" href="/groups?new=1">
            Create the first group
          </Button>
        ) : (
          <Button onClick={() => setEmptying(true)}>Empty the desk</Button>
        )}
      </section>
      <Sure
        opened={offered !== null}
        title="Replace your desk with this one"
        go="Replace permanently"
        close={() => {
          offered?.leave();
          setOffered(null);
        }}
        run={() => offered && void putInPlace(offered)}
      >
        The file was saved {offered && dayAndTime(offered.found.savedAt, now)} and holds{' '}
        {offered && holdsWords(offered.found.counts)}. What is on this desk now will be deleted permanently:{' '}
        {here}.
      </Sure>
      <Sure
        opened={emptying}
        title="Empty the desk"
        go="Empty permanently"
        close={() => setEmptying(false)}
        run={() => void empty()}
      >
        This will be deleted permanently: {here}.
      </Sure>
    </TwoColumns>
  );
}

/** The desk as a file, as far as it is written. */
function SaveDesk() {
  const [working, setWorking] = useState<{ share: number; stop: () => void } | null>(null);
  const [withPages, setWithPages] = useState(true);
  const pages = useLiveQuery(async () => picturesSize(await desk.scans.toArray())) ?? 0;
  const save = async () => {
    const at = isoNow();
    const work = savedDesk(at, withPages, (share) => setWorking((now) => now && { ...now, share }));
    setWorking({ share: 0, stop: work.stop });
    const blob = await act(work.result);
    setWorking(null);
    if (!blob) return;
    saveBlob(`gribbet-desk-${at.slice(0, 16).replace(':', '')}.zip`, blob);
    await act(setBackupSavedAt(at));
    say('Backup saved');
  };
  return (
    <section className={styles.part}>
      <h2>Save to a file</h2>
      <p>
        Everything is saved in this browser. A backup file lets you carry on at another computer, or go back
        to how things were.
      </p>
      {pages > 0 && (
        <Checkbox
          label={`With the pictures of scanned pages (${fileSize(pages)})`}
          checked={withPages}
          onChange={(event) => setWithPages(event.currentTarget.checked)}
        />
      )}
      <Button variant="filled" disabled={working !== null} onClick={() => void save()}>
        Save a backup
      </Button>
      {working && <Working what="Writing the file" share={working.share} stop={working.stop} />}
    </section>
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
    <Modal opened={opened} onClose={close} title={title} closeButtonProps={{ 'aria-label': 'Cancel' }}>
      <p className={styles.sure}>{children}</p>
      <div className={styles.row}>
        <Button variant="filled" onClick={run}>
          {go}
        </Button>
        <Button onClick={close}>Cancel</Button>
      </div>
    </Modal>
  );
}
