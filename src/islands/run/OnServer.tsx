import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import type { ServerConnection } from '@/sync/serverConnection';
import type { MailboxState } from '@/core/exchange/mailbox';
import { forgetPosted } from '@/sync/mailboxSync';
import { sittingTitles } from '@/store/carriedFiles';
import { act, say } from '@/desk/act';
import { MarginBlock } from '@/ui/TwoColumns';
import { lookAgain } from '@/workers/connection';
import styles from './run.module.css';

/** Sittings that lie on the server and are not on this desk. */
export function OtherSittings({ mailbox, server }: { mailbox: MailboxState; server: ServerConnection }) {
  const titles = useLiveQuery(sittingTitles);
  const [sure, setSure] = useState('');
  const others = titles ? mailbox.sittings.filter(({ id }) => !titles.has(id)) : [];
  if (others.length === 0) return null;
  const takeOff = async (id: string, title: string) => {
    const done = await act(
      server.put([{ drop: 'sittings', key: encodeURIComponent(id), rev: mailbox.rev }]).then(() => true),
    );
    setSure('');
    if (done) say(`${title} removed from the server`);
  };
  return (
    <MarginBlock title="Also on the server">
      <p className={styles.soft}>From another desk, or deleted from this one.</p>
      {others.map(({ id, title }) => (
        <div key={id} className={styles.actions}>
          <p>{title}</p>
          {sure === id ? (
            <>
              <p className={styles.fault}>
                The students’ answers are deleted there. The only other copy is on the desk it came from.
              </p>
              <Button onClick={() => void takeOff(id, title)}>Remove permanently</Button>
              <Button onClick={() => setSure('')}>Cancel</Button>
            </>
          ) : (
            <Button onClick={() => setSure(id)}>Remove {title} from the server</Button>
          )}
        </div>
      ))}
    </MarginBlock>
  );
}

/** A sitting of this desk that should lie on the server, and was taken off by another. */
export function GoneFromServer({ sittingId }: { sittingId: string }) {
  return (
    <div className={styles.warning} role="alert">
      <p>It is no longer on the server: another browser removed it. Students can’t reach it.</p>
      <Button onClick={() => void act(forgetPosted(sittingId)).then(lookAgain)}>
        Put it on the server again
      </Button>
    </div>
  );
}
