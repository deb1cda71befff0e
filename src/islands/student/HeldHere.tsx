import { useEffect, useState } from 'react';
import type { HeldAttempt } from '@/store/sitTables';
import { Button } from '@/ui/plain/Button';
import { heldFor } from './heldAttempts';
import styles from './student.module.css';

/** What this device holds under a join code, to go on with while nobody answers. */
export function HeldHere({ joinCode, goOn }: { joinCode: string; goOn: (held: HeldAttempt) => void }) {
  const [rows, setRows] = useState<HeldAttempt[]>([]);
  useEffect(() => {
    let here = true;
    void heldFor(joinCode)
      .catch((): HeldAttempt[] => [])
      .then((found) => here && setRows(found));
    return () => {
      here = false;
    };
  }, [joinCode]);
  return rows.map((held) => (
    <section key={held.attemptId} className={styles.paper}>
      <h2>{held.packet.title}</h2>
      <p>
        You started it on this device. You can carry on without a connection: what you type is saved here and
        sent as soon as you are connected.
      </p>
      <Button variant="filled" size="md" onClick={() => goOn(held)}>
        Continue without a connection
      </Button>
    </section>
  ));
}
