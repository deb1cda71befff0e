import { Button } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import type { PairedComputer } from '@/core/model/deskHold';
import { say } from '@/desk/act';
import { isWholeSecret, SecretField, secretFaultWords } from '@/desk/SecretField';
import type { ServerConnection } from '@/sync/serverConnection';
import { useNow } from '@/ui/clock';
import { dayAndTime } from '@/words/format';
import styles from './BackupPage.module.css';

interface PairedComputersProps {
  computers: readonly PairedComputer[];
  server: ServerConnection;
  changed: () => void;
}

/** The computers that are paired, and how a lost one is forgotten. */
export function PairedComputers({ computers, server, changed }: PairedComputersProps) {
  const now = useNow(60_000);
  const [lost, setLost] = useState<PairedComputer | null>(null);
  const heading = useRef<HTMLHeadingElement>(null);
  const buttons = useRef(new Map<string, HTMLButtonElement>());
  /** Whose form was left: the way back is its button, or the heading where it is forgotten. */
  const [left, setLeft] = useState<string | null>(null);
  useEffect(() => {
    if (left === null || lost) return;
    (buttons.current.get(left) ?? heading.current)?.focus();
    setLeft(null);
  }, [left, lost]);
  return (
    <section className={styles.part} aria-label="Paired computers">
      <h2 ref={heading} tabIndex={-1}>
        Paired computers
      </h2>
      <ul className={styles.desks}>
        {computers.map((computer) => (
          <li key={computer.id}>
            <p>
              <strong>{nameOf(computer)}</strong>
              {computer.here && ' (this one)'}, paired {dayAndTime(computer.pairedAt, now)}
            </p>
            {!computer.here && lost?.id !== computer.id && (
              <Button
                ref={(button: HTMLButtonElement | null) => {
                  if (button) buttons.current.set(computer.id, button);
                  else buttons.current.delete(computer.id);
                }}
                size="compact-sm"
                aria-label={`Forget this computer: ${nameOf(computer)}`}
                onClick={() => setLost(computer)}
              >
                Forget this computer
              </Button>
            )}
            {lost?.id === computer.id && (
              <ForgetForm
                computer={computer}
                server={server}
                close={() => {
                  setLost(null);
                  setLeft(computer.id);
                }}
                forgotten={() => {
                  setLost(null);
                  heading.current?.focus();
                  say(`${nameOf(computer)} is forgotten`);
                  changed();
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

const nameOf = ({ name }: PairedComputer) => name || 'A browser without a name';

interface ForgetFormProps {
  computer: PairedComputer;
  server: ServerConnection;
  close: () => void;
  forgotten: () => void;
}

function ForgetForm({ computer, server, close, forgotten }: ForgetFormProps) {
  const [secret, setSecret] = useState('');
  const [word, setWord] = useState('');
  const forget = async () => {
    try {
      await server.forgetComputer(secret, computer.id);
      forgotten();
    } catch (error) {
      setWord(secretFaultWords(error, 'The server refused. Its log says why.'));
    }
  };
  return (
    <form
      className={styles.forget}
      aria-label={`Forget ${nameOf(computer)}`}
      onSubmit={(event) => {
        event.preventDefault();
        void forget();
      }}
    >
      <p>
        The server no longer lets it in: it can’t fetch the desk, send changes or give out papers. When
        Gribbet is opened on it next and reaches the server, it forgets the secret, and its desk is for
        reading only. What is stored in that browser stays on that computer. If it was stolen, also have the
        secret changed on the server: then every computer has to be paired again.
      </p>
      <SecretField autoFocus value={secret} error={word} change={setSecret} />
      <div className={styles.row}>
        <Button type="submit" variant="filled" disabled={!isWholeSecret(secret)}>
          Forget {nameOf(computer)}
        </Button>
        <Button onClick={close}>Cancel</Button>
      </div>
    </form>
  );
}
