import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import type { RegisterReply, ToRegister } from '@/core/exchange/register';
import { resultsDue, type RegisterResult } from '@/core/formats/oneroster/writeResults';
import { act } from '@/desk/act';
import { useConnection } from '@/desk/useConnection';
import { sentToRegister, setSentToRegister } from '@/store/exportForms';
import { serverConnection } from '@/sync/serverConnection';
import { counted } from '@/words/format';
import styles from './takeout.module.css';

const server = serverConnection();

interface SendToRegisterProps {
  sittingId: string;
  item: ToRegister['item'];
  results: readonly RegisterResult[];
}

/** Sends results to the register behind the server: all at first, then what changed since. */
export function SendToRegister({ sittingId, item, results }: SendToRegisterProps) {
  const reach = useConnection().state?.reach;
  const [at, setAt] = useState<string | null>(null);
  const [reply, setReply] = useState<RegisterReply | null>(null);
  const [busy, setBusy] = useState(false);
  const sent = useLiveQuery(() => sentToRegister(sittingId), [sittingId]);
  useEffect(() => {
    if (reach !== 'here') return undefined;
    let here = true;
    // Without one there is nothing to send to.
    server.registerAt().then(
      (found) => here && setAt(found),
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [reach]);
  if (at === null || !sent) return null;
  const { due, corrections } = resultsDue(results, sent);
  const send = async () => {
    setBusy(true);
    const said = await act(server.sendToRegister({ item, results: due }));
    setBusy(false);
    if (!said) return;
    setReply(said);
    const taken = new Set(said.outcomes.flatMap(({ id, is }) => (is === 'refused' ? [] : [id])));
    const next = new Map(sent);
    for (const row of due) if (taken.has(row.sourcedId)) next.set(row.sourcedId, JSON.stringify(row));
    await act(setSentToRegister(sittingId, next));
  };
  const refused = reply?.outcomes.filter(({ is }) => is === 'refused') ?? [];
  return (
    <>
      <p>
        The register at {at} has {counted(sent.size, 'result')} of this sitting.
      </p>
      <Button loading={busy} disabled={due.length === 0} onClick={() => void send()}>
        {due.length === 0
          ? 'The register is up to date'
          : corrections === due.length
            ? `Send ${counted(corrections, 'correction')} to the register`
            : `Send ${counted(due.length, 'result')} to the register`}
      </Button>
      {reply && (
        <div role="status">
          {reply.fault && <p>{reply.fault} Nothing was sent.</p>}
          {!reply.fault && (
            <p>
              {counted(reply.outcomes.length - refused.length, 'result')} taken
              {refused.length > 0 && `, ${refused.length} refused:`}
            </p>
          )}
          {refused.length > 0 && (
            <ul className={styles.losses}>
              {refused.slice(0, 8).map(({ id, words }) => (
                <li key={id}>{words}</li>
              ))}
            </ul>
          )}
        </div>
      )}
    </>
  );
}
