import { Button, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { DeskHold, PairedComputer } from '@/core/model/deskHold';
import { act, say } from '@/desk/act';
import { DeskReady } from '@/desk/DeskReady';
import { PairForm } from '@/desk/PairForm';
import { useConnection } from '@/desk/useConnection';
import { useCopyPlaces } from '@/desk/useCopyPlaces';
import { useElsewhere } from '@/desk/useElsewhere';
import { useFocusOverPairing } from '@/desk/useFocusOverPairing';
import { knownDeskId } from '@/store/deskSettings';
import { deskIsHere } from '@/store/elsewhere';
import { pairing } from '@/store/pairing';
import { knownComputer, nameThisComputer, thisComputer } from '@/sync/copyPlaces';
import { serverConnection } from '@/sync/serverConnection';
import { useNow } from '@/ui/clock';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { elsewhereWords } from '@/words/computers';
import { dayAndTime } from '@/words/format';
import styles from './BackupPage.module.css';
import { PlaceWords } from './CopyPlaces';
import { PairedComputers } from './PairedComputers';
import { TakeOver } from './TakeOver';

const server = serverConnection();

/** Which computer has the desk, and how it is taken over on another one. */
export function ComputersPage() {
  return (
    <DeskReady>
      <Computers />
    </DeskReady>
  );
}

interface OnServer {
  holds: DeskHold[];
  computers: PairedComputer[];
}

/** What the server knows of desks and computers; null where it can't be asked. */
function useOnServer(paired: boolean): { there: OnServer | null; look: () => Promise<void> } {
  const [there, setThere] = useState<OnServer | null>(null);
  const look = useCallback(async () => {
    if (!paired) return;
    try {
      const [holds, computers] = await Promise.all([server.holds(), server.computers()]);
      setThere({ holds, computers });
      // It was named before it was paired.
      const [named, told] = [await thisComputer(), computers.find(({ here }) => here)];
      if (told && told.name !== named.name) {
        await server.nameComputer(named);
        setThere({ holds, computers: await server.computers() });
      }
    } catch {
      setThere(null);
    }
  }, [paired]);
  useEffect(() => {
    void look();
    const again = setInterval(() => void look(), 5_000);
    return () => clearInterval(again);
  }, [look]);
  return { there, look };
}

function Computers() {
  const { paired, state } = useConnection();
  const { there, look } = useOnServer(paired === true);
  const elsewhere = useElsewhere();
  const mine = useLiveQuery(knownComputer);
  useEffect(() => void thisComputer(), []);
  const id = useLiveQuery(knownDeskId);
  const copies = useCopyPlaces();
  const heading = useRef<HTMLHeadingElement>(null);
  // The button for it is gone.
  const taken = () => {
    heading.current?.focus();
    void look();
  };
  useFocusOverPairing(paired, heading);
  const now = useNow(15_000);
  if (paired === undefined || elsewhere === undefined || !mine || id === undefined) return null;
  // What was on this computer before is under Restore a backup.
  const others =
    there?.holds.filter(({ deskId, computer }) => deskId !== id && computer.id !== mine.id) ?? [];
  const begin = new URLSearchParams(window.location.search).has('take');
  return (
    <TwoColumns
      marginLabel="About this computer"
      margin={
        <>
          <MarginBlock title="This computer">
            <ComputerName
              name={mine.name}
              named={async (name) => {
                const computer = await nameThisComputer(name);
                if (await pairing()) await server.nameComputer(computer);
                await look();
              }}
            />
          </MarginBlock>
          {paired && !elsewhere && copies?.server && (
            <MarginBlock title="Sent to the server">
              <PlaceWords place={copies.server} name="Your desk, sealed" />
            </MarginBlock>
          )}
        </>
      }
    >
      <h1 className={styles.heading}>Computers</h1>
      <p className={styles.soft}>
        One desk on several computers: at school and at home. One of them has it and changes it, the others
        can read. The server passes it on sealed, and can’t read it.
      </p>
      {paired || elsewhere?.why === 'taken' || elsewhere?.why === 'taking' ? (
        <section className={styles.part} aria-label="Where your desk is">
          <h2 ref={heading} tabIndex={-1}>
            {elsewhere ? 'Your desk is on another computer' : 'Your desk is here'}
          </h2>
          {elsewhere ? (
            <>
              <p>{elsewhereWords(elsewhere, now)}</p>
              {elsewhere.sentAt && (
                <p className={styles.soft}>
                  What you see here is from {dayAndTime(elsewhere.sentAt, now)}
                  {elsewhere.unsent ? ', and what was done here after that.' : '.'}
                </p>
              )}
              {id !== null && elsewhere.why !== 'giving' && (
                <TakeOver key="own" deskId={id} label="Take the desk over here" begin={begin} done={taken} />
              )}
              {state?.reach === 'unreachable' && <WithoutServer />}
            </>
          ) : (
            <p>
              To go on at another computer, open Gribbet there, pair it with the same server, and choose{' '}
              <em>Take this desk over here</em> under Computers. Nothing has to be done here first.
            </p>
          )}
        </section>
      ) : (
        <section className={styles.part}>
          <h2 ref={heading} tabIndex={-1}>
            Pair this browser first
          </h2>
          <PairForm server={server} />
        </section>
      )}
      {paired && others.length > 0 && (
        <section className={styles.part} aria-label="Other desks on this server">
          <h2>{others.length === 1 ? 'Another desk on this server' : 'Other desks on this server'}</h2>
          <ul className={styles.desks}>
            {others.map(({ deskId, computer, since, sentAt }) => (
              <li key={deskId}>
                <p>
                  On <strong>{computer.name}</strong> since {dayAndTime(since, now)}
                  {sentAt !== null && `, last changes from ${dayAndTime(sentAt, now)}`}
                </p>
                <TakeOver
                  deskId={deskId}
                  label="Take this desk over here"
                  about={computer.name}
                  done={taken}
                />
              </li>
            ))}
          </ul>
        </section>
      )}
      {there && <PairedComputers computers={there.computers} server={server} changed={() => void look()} />}
      {paired && !there && state?.reach !== 'here' && (
        <p role="status" className={styles.fault}>
          The server can’t be reached: which computers are paired can’t be shown.
        </p>
      )}
    </TwoColumns>
  );
}

/** What the server and the other computers call this one. */
function ComputerName({ name, named }: { name: string; named: (name: string) => Promise<void> }) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    const next = typed?.trim() ?? '';
    setTyped(null);
    if (next === '' || next === name) return;
    void act(named(next)).then(() => say(`This computer is called ${next} now`));
  };
  return (
    <TextInput
      label="What it is called"
      description="So you know it from the other one. The server sees the name."
      data-not-desk
      maxLength={60}
      value={typed ?? name}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === 'Enter' && keep()}
    />
  );
}

/** Where the server can't be asked, the teacher may go on all the same. */
function WithoutServer() {
  return (
    <>
      <p>
        The server can’t be reached, so the desk can’t be fetched. You can go on with what is here. Once the
        server is there again, you are shown what was changed on both computers, and choose.
      </p>
      <Button onClick={() => void act(deskIsHere()).then(() => say('You can work here now'))}>
        Work here without the server
      </Button>
    </>
  );
}
