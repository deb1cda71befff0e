import { Button } from '@mantine/core';
import { useRef, useState } from 'react';
import type { ServerConnection } from '@/sync/serverConnection';
import { pairDesk } from '@/sync/mailboxSync';
import { isWholeSecret, SecretField, secretFaultWords } from './SecretField';
import styles from './PairForm.module.css';

/** Once in each browser: the secret says that this is the teacher's. */
export function PairForm({ server }: { server: ServerConnection }) {
  const [secret, setSecret] = useState('');
  const [word, setWord] = useState('');
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  const pair = async () => {
    setBusy(true);
    try {
      await pairDesk(server, secret);
    } catch (error) {
      setWord(secretFaultWords(error, 'Pairing failed. The server’s terminal says why.'));
      // The button could not keep the focus meanwhile; what is to be changed is the secret.
      form.current?.querySelector('input')?.focus();
    } finally {
      setBusy(false);
    }
  };
  return (
    <form
      ref={form}
      className={styles.form}
      aria-label="Pair with the server"
      onSubmit={(event) => {
        event.preventDefault();
        void pair();
      }}
    >
      <p>
        Gribbet runs on a computer that your students’ devices can reach: this one, or one at school. So that
        only you can give papers out there, enter the teacher’s secret once in this browser. It was printed in
        the terminal where Gribbet first started, and is in <code>teacher-secret.txt</code> in its exchange
        folder.
      </p>
      <SecretField value={secret} error={word} change={setSecret} />
      <Button type="submit" variant="filled" loading={busy} disabled={!isWholeSecret(secret)}>
        Pair browser
      </Button>
    </form>
  );
}
