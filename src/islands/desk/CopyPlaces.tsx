import { Button } from '@mantine/core';
import { copiesKept } from '@/core/formats/backup/copies';
import { useNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { ageWords, copyFaultWords } from '@/words/backups';
import { allowFolder, canChooseFolder, chooseFolder, leaveFolder } from '@/desk/useCopies';
import { useCopyPlaces } from '@/desk/useCopyPlaces';
import { notCopiedSince, type CopyPlace } from '@/sync/copyPlaces';
import { copyNow } from '@/workers/copies';
import styles from './BackupPage.module.css';

/** Where copies keep themselves: a folder that the teacher chose, and the server that this browser is paired with. */
export function CopyPlaces() {
  const places = useCopyPlaces();
  if (!places) return null;
  const { folder, server } = places;
  return (
    <section className={styles.part}>
      <h2>Automatic backups</h2>
      <p>
        While the desk is open in this browser, your changes are backed up within about two minutes. Gribbet
        keeps the {copiesKept.newest} newest, one of each of the last {copiesKept.hours} hours and one of each
        of the last {copiesKept.days} days.
      </p>
      {folder ? (
        <>
          <PlaceWords place={folder} name={`In the folder ${folder.handle.name}`} />
          <div className={styles.row}>
            {folder.fault === 'permission' && (
              <Button variant="filled" onClick={() => void act(allowFolder(folder))}>
                Allow Gribbet to write to {folder.handle.name} again
              </Button>
            )}
            <Button onClick={() => void act(chooseFolder())}>Choose another folder</Button>
            <Button onClick={() => void act(leaveFolder())}>Stop backing up to the folder</Button>
          </div>
        </>
      ) : canChooseFolder() ? (
        <Button onClick={() => void act(chooseFolder())}>Choose a backup folder</Button>
      ) : (
        <p className={styles.soft}>This browser can’t write to a folder. Save a backup file now and then.</p>
      )}
      {server ? (
        <PlaceWords place={server} name="On the classroom server, sealed with the teacher’s secret" />
      ) : (
        <p className={styles.soft}>
          Once this browser is paired with a classroom server, sealed backups are kept there too.
        </p>
      )}
      {(folder || server) && <Button onClick={copyNow}>Back up now</Button>}
    </section>
  );
}

/** How old the last copy in a place is, and what keeps new ones from it. */
export function PlaceWords({ place, name }: { place: CopyPlace; name: string }) {
  const now = useNow(15_000);
  const { lastAt, fault } = place;
  return (
    <p role="status">
      {name}:{' '}
      {lastAt
        ? `last backup ${ageWords(lastAt, now)}`
        : fault
          ? 'no backup yet'
          : 'backing up for the first time'}
      {lastAt && notCopiedSince(place) === null && ', nothing has changed since'}.{' '}
      {fault && <strong>No new backups: {copyFaultWords[fault]}.</strong>}
    </p>
  );
}
