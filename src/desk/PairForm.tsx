import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ServerFault } from '@/core/exchange/serverFault';
import type { ServerConnection } from '@/sync/serverConnection';
import { pairDesk } from '@/sync/mailboxSync';
import styles from './PairForm.module.css';

const words: Record<string, string> = {
  wrongSecret: 'That isn’t this server’s secret.',
  tooManyGuesses: 'Too many wrong attempts. Try again in ten minutes.',
  unreachable: 'The server can’t be reached. Check that Gribbet is running there.',
};

/** Once in each browser: the secret says that this is the teacher's. */
export function PairForm({ server }: { server: ServerConnection }) {
  const [secret, setSecret] = useState('');
  const [word, setWord] = useState('');
  const pair = async () => {
    try {
      await pairDesk(server, secret);
    } catch (error) {
      setWord(
        words[error instanceof ServerFault ? error.why : ''] ??
          'Pairing failed. The server’s terminal says why.',
      );
    }
  };
  return (
    <form
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
      <TextInput
        label="The teacher’s secret"
        autoComplete="off"
        spellCheck={false}
        maxLength={100}
        value={secret}
        error={word}
        onChange={(event) => setSecret(event.currentTarget.value)}
      />
      <Button type="submit" variant="filled" disabled={secret.trim().length < 12}>
        Pair browser
      </Button>
    </form>
  );
}
