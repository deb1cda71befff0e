import { faultWords } from '@/words/faults';
import { Button, Progress } from '@mantine/core';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { openBackup, type BackupFound, type BackupSource, type OpenBackup } from '@/workers/backupWork';
import { FileButton } from '../ui/FileButton';
import { isoNow, useNow } from '../ui/clock';
import type { ClashChoice, PartPlan } from '@/core/formats/backup/joinPart';
import { thisTab } from './undoLast';
import { counted, dayAndTime, percent } from '@/words/format';
import { act } from './act';
import { ageWords, backupFaultWords } from '@/words/backups';
import styles from './PutBack.module.css';
import { useFoundCopies, type FoundCopy } from './useCopies';

export type Readable = Extract<BackupFound, { savedAt: string }>;

/** A part of another desk that was read, and what takes it in. */
export interface PartRead extends PartFound {
  join: (choices: [string, ClashChoice][]) => Promise<boolean>;
}

/** What a part is called, and what taking it in would do. */
export interface PartFound {
  part: string;
  savedAt: string;
  plan: PartPlan;
}

interface PutBackProps {
  /** Asked once a backup was read and is good; `put` puts it in place, `leave` lets it go. */
  offer: (found: Readable, put: () => Promise<boolean>, leave: () => void, source: BackupSource) => void;
  /** Asked once a part of another desk was read; absent: here such files are not taken. */
  offerPart?: (found: PartRead, leave: () => void) => void;
  /** Putting the newest copy back is the next thing to do. */
  first?: boolean;
  /** Told where copies were found. */
  children?: (copies: readonly FoundCopy[]) => ReactNode;
}

const hourMs = 3_600_000;

const fewest = 4;

/** All that can be put back: copies that kept themselves, each with its button, and any file. */
export function PutBack({ offer, offerPart, first = false, children }: PutBackProps) {
  const { copies } = useFoundCopies();
  const now = useNow(30_000);
  const [all, setAll] = useState(false);
  const [fault, setFault] = useState('');
  const [working, setWorking] = useState<{ what: string; share: number } | null>(null);
  const open = useRef<OpenBackup | null>(null);
  useEffect(() => () => open.current?.close(), []);

  const leave = () => {
    open.current?.close();
    open.current = null;
    setWorking(null);
  };
  const read = async (name: string, source: BackupSource) => {
    leave();
    setFault('');
    const tell = (what: string) => (share: number) => setWorking({ what, share });
    tell(`Reading ${name}`)(0);
    const backup = openBackup(source, tell(`Reading ${name}`));
    open.current = backup;
    try {
      const found = await backup.found;
      setWorking(null);
      if ('fault' in found) return setFault(`${name}: ${backupFaultWords(found.fault)}`);
      const { part, plan, savedAt } = found;
      if (part !== undefined && plan) {
        if (!offerPart) {
          leave();
          return setFault(
            `${name}: it holds a part of a desk. Start a desk first, then take it in under Backup.`,
          );
        }
        const join = async (choices: [string, ClashChoice][]) => {
          const work = backup.join(choices, thisTab(), isoNow(), tell('Taking it in'));
          const done = await act(work.then(() => true));
          leave();
          return done === true;
        };
        return offerPart({ part, plan, savedAt, join }, leave);
      }
      const put = async () => {
        const done = await act(backup.put(tell('Restoring')).then(() => true));
        leave();
        return done === true;
      };
      offer(found, put, leave, source);
    } catch (error) {
      setWorking(null);
      setFault(`${name}: ${faultWords(error, 'it couldn’t be read')}. Nothing was changed.`);
    }
  };
  const readCopy = async (copy: FoundCopy) => {
    const name = `the copy of ${dayAndTime(copy.at, now)}`;
    if (copy.place === 'server') return read(name, copy);
    const file = await act(copy.file());
    if (file) await read(name, file);
  };
  const shown = all ? (copies ?? []) : (copies ?? []).slice(0, fewest);
  return (
    <>
      {shown.length > 0 && (
        <ul className={styles.copies} aria-label="Copies to restore">
          {shown.map((copy, index) => (
            <li key={`${copy.place} ${copy.deskId} ${copy.at}`}>
              <span>
                {dayAndTime(copy.at, now)}{' '}
                <span className={styles.soft}>
                  {now - Date.parse(copy.at) < hourMs && `${ageWords(copy.at, now)}, `}
                  {placeWords[copy.place]}
                  {!copy.own && ', from another desk'}
                  {copy.keptFrom !== undefined && `, as it was on ${copy.keptFrom} before two were made one`}
                </span>
              </span>
              <Button
                size="compact-sm"
                variant={first && copy.own && index === 0 ? 'filled' : 'default'}
                disabled={working !== null}
                aria-label={`Restore this copy: ${dayAndTime(copy.at, now)}, ${placeWords[copy.place]}${copy.own ? '' : ', from another desk'}`}
                onClick={() => void readCopy(copy)}
              >
                Restore this copy
              </Button>
            </li>
          ))}
        </ul>
      )}
      {copies && children?.(copies)}
      {copies && copies.length > shown.length && (
        <Button size="compact-sm" onClick={() => setAll(true)}>
          Show {counted(copies.length - shown.length, 'older copy', 'older copies')}
        </Button>
      )}
      <FileButton
        accept=".zip,.json,application/zip,application/json"
        onChange={(file) => file && void read(file.name, file)}
      >
        {(props) => <Button {...props}>Choose backup file</Button>}
      </FileButton>
      {working && <Working {...working} stop={working.what.startsWith('Reading') ? leave : null} />}
      {fault && (
        <p role="alert" className={styles.fault}>
          {fault}
        </p>
      )}
    </>
  );
}

const placeWords: Record<FoundCopy['place'], string> = {
  folder: 'in the backup folder',
  server: 'on the server, sealed',
};

/** What is being done, how far it is, and the way to stop it. */
export function Working({ what, share, stop }: { what: string; share: number; stop: (() => void) | null }) {
  return (
    <div className={styles.working}>
      <span id="working">
        {what}: {percent(share)}
      </span>
      <Progress.Root size="sm">
        <Progress.Section value={share * 100} aria-labelledby="working" />
      </Progress.Root>
      {stop && (
        <Button size="compact-sm" onClick={stop}>
          Stop
        </Button>
      )}
    </div>
  );
}
