import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { desk } from '@/store/tables';
import { useNow } from '../clock';
import { clockTime } from '../format';
import { KeyHint } from '../KeyHint';
import { useWord } from './act';
import styles from './KeptLine.module.css';
import { undoLast } from './undoLast';

/** How long the last thing done stays in sight with its way back. */
const inSightMs = 10 * 60_000;

/** The quiet line at the foot: that all is kept, what was done last, and the way to take it back. */
export function KeptLine() {
  const now = useNow(30_000);
  const word = useWord();
  const last = useLiveQuery(() => desk.log.orderBy('seq').last());
  const fresh = last && last.undoneAt === null && now - Date.parse(last.at) < inSightMs;
  return (
    <div className={styles.line}>
      <span className={styles.kept}>
        {last ? `kept ${clockTime(last.undoneAt ?? last.at)}` : 'everything is kept as you go'}
      </span>
      <span role="status" className={word?.fault ? styles.fault : styles.said}>
        {word?.text ?? (fresh ? last.said : '')}
      </span>
      {fresh && last.changes.length > 0 && !word && (
        <Button
          size="compact-sm"
          onClick={() => void undoLast(last.seq)}
          rightSection={<KeyHint keys="Ctrl Z" />}
        >
          Undo
        </Button>
      )}
    </div>
  );
}
