import { Button, Progress } from '@mantine/core';
import styles from './WorkLine.module.css';

interface WorkLineProps {
  /** What is being done: "Reading". */
  doing: string;
  /** What of: "file". */
  of: string;
  done: number;
  all: number;
  stop: () => void;
}

/** Work that takes a while: what is being done, how far it is, and a way to stop it. */
export function WorkLine({ doing, of, done, all, stop }: WorkLineProps) {
  return (
    <div className={styles.line}>
      <span role="status">
        {doing} {of} {Math.min(done + 1, all)} of {all}
      </span>
      <Progress className={styles.bar ?? ''} value={(100 * done) / all} aria-label={`${doing}, so far`} />
      <Button onClick={stop}>Stop</Button>
    </div>
  );
}
