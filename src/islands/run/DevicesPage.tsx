import { Button, NativeSelect } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useEffect, useRef, useState } from 'react';
import { serverConnection } from '@/sync/serverConnection';
import type { MailboxState } from '@/core/exchange/mailbox';
import { readyToSit } from '@/core/scoring/paperFindings';
import { isPosted, unpairDesk } from '@/sync/mailboxSync';
import { setOnDevices } from '@/store/sittings';
import { isoNow, useNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import { useConnection } from '@/desk/useConnection';
import { useFocusOverPairing } from '@/desk/useFocusOverPairing';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import type { ConnectionState } from '@/workers/connection';
import { GoneFromServer, OtherSittings } from './OnServer';
import { PairForm } from '@/desk/PairForm';
import { ServerWord, StoppedWord } from './ServerWord';
import { WayIn } from './WayIn';
import { stateGroups } from '@/words/attempts';
import styles from './run.module.css';

const server = serverConnection();

/** Letting students in on their own devices: where they find it, who is in, and whether the server is in reach. */
export function DevicesPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="run" tickMs={5_000}>
      {(sitting) => <Devices sitting={sitting} />}
    </SittingPage>
  );
}

function Devices({ sitting }: { sitting: SittingData }) {
  const { sitting: record } = sitting;
  const { paired, state } = useConnection();
  const { mailbox, before } = useMailbox(paired === true);
  const posted = useLiveQuery(() => isPosted(record.id), [record.id]);
  const [address, setAddress] = useState('');
  const heading = useRef<HTMLHeadingElement>(null);
  useFocusOverPairing(paired, heading);
  if (paired === undefined) return null;
  const addresses = [...(mailbox?.addresses ?? []), window.location.origin].filter(
    (each, index, all) => all.indexOf(each) === index,
  );
  const shown = addresses.includes(address) ? address : (addresses[0] ?? '');
  // Twice in a row: what was let in just now is on its way.
  const lies = (there: MailboxState | null) => !there || there.sittings.some(({ id }) => id === record.id);
  const gone = state?.reach === 'here' && !lies(mailbox) && before !== null && !lies(before);
  const letIn = (on: boolean) => void act(setOnDevices(record.id, on, isoNow()));
  return (
    <TwoColumns
      marginLabel="About the server"
      margin={
        <>
          <MarginBlock title="Who has joined">
            <WhoIsIn sitting={sitting} state={state} />
          </MarginBlock>
          <MarginBlock title="The server">
            <ServerWord sittingId={record.id} state={state} paired={paired} />
            {paired && addresses.length > 1 && (
              <NativeSelect
                label="Address to show"
                description="This computer has several addresses. Students need the one on their network."
                size="xs"
                value={shown}
                data={addresses}
                onChange={(event) => setAddress(event.currentTarget.value)}
              />
            )}
            {paired && (
              <Button justify="start" onClick={() => void act(unpairDesk(server))}>
                End pairing
              </Button>
            )}
          </MarginBlock>
          {mailbox && <StoppedWord />}
          {mailbox && <OtherSittings mailbox={mailbox} server={server} />}
          {record.onDevices && (
            <MarginBlock title="When everything is in">
              <p className={styles.soft}>
                After this, students can’t reach the paper or their results on the server. What they handed in
                stays on your desk.
              </p>
              {state?.reach !== 'here' && (
                <p className={styles.fault}>
                  Wait until the server can be reached, so that nothing is left behind.
                </p>
              )}
              <Button justify="start" disabled={state?.reach !== 'here'} onClick={() => letIn(false)}>
                Remove from the server
              </Button>
            </MarginBlock>
          )}
        </>
      }
    >
      <h2 ref={heading} tabIndex={-1} className={styles.heading}>
        {record.title} on students’ own devices
      </h2>
      {!paired ? (
        <PairForm server={server} />
      ) : record.onDevices ? (
        <>
          {gone && <GoneFromServer sittingId={record.id} />}
          {posted ? (
            <WayIn address={shown} accessCode={record.accessCode} guests={record.guests === true} />
          ) : (
            posted === false && (
              <EmptyState title="Students can’t join yet">
                <span role="status">The sitting is on its way to the server. Their address comes here.</span>
              </EmptyState>
            )
          )}
        </>
      ) : readyToSit(sitting.paper) ? (
        <EmptyState
          title="Students can’t join yet"
          action={
            <Button variant="filled" onClick={() => letIn(true)}>
              Let students join on their own devices
            </Button>
          }
        >
          The sitting goes to this server without the key. From then on the paper is fixed, just as when the
          first student starts.
        </EmptyState>
      ) : (
        <EmptyState
          title="The paper isn’t ready to be sat"
          action={<a href={`/papers/${record.paperId}`}>Go to the paper</a>}
        >
          The list beside the paper says what to fix.
        </EmptyState>
      )}
    </TwoColumns>
  );
}

/** How the mailbox stands, asked now and then while the page is open, and how it stood the time before. */
function useMailbox(paired: boolean): { mailbox: MailboxState | null; before: MailboxState | null } {
  const [looks, setLooks] = useState<MailboxState[]>([]);
  const now = useNow(5_000);
  const look = useCallback(async () => {
    try {
      const next = await server.state();
      setLooks(([last]) => (last ? [next, last] : [next]));
    } catch {
      // The connection itself says that the server is away.
    }
  }, []);
  useEffect(() => {
    if (paired) void look();
  }, [paired, look, now]);
  const [mailbox = null, before = null] = paired ? looks : [];
  return { mailbox, before };
}

function WhoIsIn({ sitting, state }: { sitting: SittingData; state: ConnectionState | null }) {
  const count = (name: keyof typeof stateGroups) =>
    sitting.seats.filter((seat) => stateGroups[name].includes(seat.state)).length;
  const arriving = state?.arriving ?? 0;
  return (
    <>
      <dl className={styles.facts}>
        <dt>not started</dt>
        <dd>{count('notStarted')}</dd>
        <dt>working</dt>
        <dd>{count('working')}</dd>
        <dt>in</dt>
        <dd>{count('in')}</dd>
        {sitting.sitting.onDevices && (
          <>
            <dt>answers arriving</dt>
            <dd>{state?.reach === 'here' ? arriving || 'none' : 'stored on the server'}</dd>
          </>
        )}
      </dl>
      <Button component="a" justify="start" href={`/sittings/${sitting.sitting.id}/run`}>
        Watch each student
      </Button>
    </>
  );
}
