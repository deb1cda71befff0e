import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { serverConnection } from '@/sync/serverConnection';
import { assertNever } from '@/core/basics/assertNever';
import type { Stopped } from '@/core/exchange/mailbox';
import { fullName } from '@/core/model/names';
import type { Sitting } from '@/core/model/sitting';
import { desk } from '@/store/tables';
import { useNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { useConnection } from '@/desk/useConnection';
import { clockTime, counted } from '@/words/format';
import { lookAgain, type ConnectionState } from '@/workers/connection';
import styles from './run.module.css';

/** Beyond this the clocks of desk and server are worth a word. */
const clocksApartMs = 30_000;

interface ServerWordProps {
  sittingId: string;
  state: ConnectionState | null;
  paired: boolean;
}

/** How the connection to the server is, in a sentence; where it is broken, what to do. */
export function ServerWord({ sittingId, state, paired }: ServerWordProps) {
  const now = useNow(5_000);
  if (!paired) return <p className={styles.soft}>This browser isn’t paired with it.</p>;
  if (!state || state.reach === 'asking') return <p className={styles.soft}>Connecting…</p>;
  if (state.reach !== 'here')
    return (
      <p role="alert" className={styles.warning}>
        <FaultWords sittingId={sittingId} state={state} />
      </p>
    );
  return (
    <>
      <p role="status">Connected, last heard {clockTime(state.heardAt ?? now)}.</p>
      {Math.abs(state.aheadMs) > clocksApartMs && (
        <p className={styles.fault}>
          Its clock is {counted(Math.round(Math.abs(state.aheadMs) / 60_000), 'minute')}{' '}
          {state.aheadMs > 0 ? 'ahead of' : 'behind'} this computer’s. Students go by the server’s.
        </p>
      )}
    </>
  );
}

/** A connection that is away for less comes back by itself, and nobody who watches need look up. */
const blinkMs = 10_000;

/** Said above what is watched while students sit on their own devices: that it is not as of now. */
export function LineFault({ sitting }: { sitting: Sitting }) {
  const now = useNow(5_000);
  const { paired, state } = useConnection();
  const reach = paired === false ? 'notPaired' : (state?.reach ?? 'asking');
  if (reach === 'asking' || reach === 'here') return null;
  if (reach === 'unreachable' && now - (state?.heardAt ?? 0) < blinkMs) return null;
  return (
    <p role="alert" className={styles.watchFault}>
      What you see may be out of date: {faultInShort[reach]}.{' '}
      <a href={`/sittings/${sitting.id}/devices`}>What to do</a>
    </p>
  );
}

/** Said there too: who cannot come in because too much was guessed, with the way to let them in. */
export function StoppedWord() {
  const now = useNow(5_000);
  const { state } = useConnection();
  const stopped = (state?.stopped ?? []).filter(({ until }) => until > now);
  const names = useLiveQuery(
    async () =>
      new Map(
        (await desk.students.bulkGet(stopped.map(({ from }) => from))).flatMap((each) =>
          each ? [[each.id, fullName(each)] as const] : [],
        ),
      ),
    [JSON.stringify(stopped.map(({ from }) => from))],
  );
  return stopped.map(({ from, until, what }) => {
    const who = what === 'access' ? (names?.get(from) ?? 'A student') : from;
    return (
      <div key={`${what} ${from}`} role="alert" className={styles.watchFault}>
        {stoppedWords[what](who, clockTime(until))}{' '}
        <Button size="compact-sm" onClick={() => void act(serverConnection().forgive(from).then(lookAgain))}>
          Let {who} in now
        </Button>
      </div>
    );
  });
}

const stoppedWords: Record<Stopped['what'], (who: string, until: string) => string> = {
  codes: (who, until) =>
    `Many wrong join codes came from ${who}: new devices there can’t join until ${until}.`,
  guests: (who, until) => `Many wrong access codes came from ${who}: guests there can’t join until ${until}.`,
  access: (who, until) => `${who} typed too many wrong access codes and can’t start until ${until}.`,
};

/** The same in few words. */
const faultInShort: Record<Exclude<ConnectionState['reach'], 'asking' | 'here'>, string> = {
  unreachable: 'the server can’t be reached. Answers wait on students’ devices',
  notPaired: 'this browser isn’t paired with the server students are using',
  full: 'the server’s disk is full. What came in is saved',
  failed: 'the server answers, but something went wrong there',
};

function FaultWords({ sittingId, state }: { sittingId: string; state: ConnectionState }) {
  const heard = state.heardAt ? ` Last heard ${clockTime(state.heardAt)}.` : '';
  switch (state.reach) {
    case 'unreachable':
      return (
        <>
          The server can’t be reached.{heard} Students’ answers wait on their devices and arrive later by
          themselves. Check that Gribbet is still running on the server’s computer and that this computer is
          on the same network; when it is back, you don’t need to do anything. If it doesn’t come back, you
          can carry the paper <a href={`/sittings/${sittingId}/by-hand`}>in files</a>.
        </>
      );
    case 'notPaired':
      return (
        <>
          The server no longer knows this browser. End the pairing and pair again, on the page for{' '}
          <a href={`/sittings/${sittingId}/devices`}>their own devices</a>.
        </>
      );
    case 'full':
      return (
        <>The server’s disk is full. What came in is saved; free some space there and it will carry on.</>
      );
    case 'failed':
      return <>The server answers, but something went wrong there.{heard} Its terminal says what.</>;
    case 'asking':
    case 'here':
      return null;
    default:
      return assertNever(state.reach);
  }
}
