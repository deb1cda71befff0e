import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { lastDone, undoable } from '@/store/command';
import { desk } from '@/store/tables';
import { useNow } from '../ui/clock';
import { clockTime } from '@/words/format';
import { KeyHint } from '../ui/KeyHint';
import { useWord } from './act';
import styles from './SaveStatus.module.css';
import { undoLast } from './undoLast';

/** How long the last thing done stays in sight with its way back. */
const inSightMs = 10 * 60_000;

/** The quiet line at the foot: that all is kept, what was done last, and the way to take it back. */
export function SaveStatus() {
  const now = useNow(30_000);
  const word = useWord();
  const last = useLiveQuery(() => desk.log.orderBy('seq').last());
  // What was done in another tab is taken back there.
  const mine = useLiveQuery(() => undoable());
  const done = useLiveQuery(() => lastDone());
  const fresh = done && done.undoneAt === null && now - Date.parse(done.at) < inSightMs;
  return (
    <footer className={styles.line} aria-label="Saved state">
      <span className={styles.kept}>
        {word?.unsaved ? 'not saved' : last ? `saved ${clockTime(last.undoneAt ?? last.at)}` : ''}
      </span>
      <span role="status" className={word?.fault ? styles.fault : styles.said}>
        {word?.text ?? (fresh ? done.said : '')}
      </span>
      {fresh && mine?.seq === done.seq && !word && (
        <Button
          className={styles.undo}
          size="compact-sm"
          onClick={() => void undoLast(mine?.seq)}
          rightSection={<KeyHint keys="Ctrl Z" />}
        >
          Undo
        </Button>
      )}
    </footer>
  );
}
