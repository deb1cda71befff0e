import { counted } from '@/words/format';
import { useLiveQuery } from 'dexie-react-hooks';
import { desk } from '@/store/tables';
import styles from './Shell.module.css';

/** How many students wait for an answer to what they ask for: on every page, for they wait whatever is open. */
export function Asking() {
  const asked = useLiveQuery(() => desk.requests.filter(({ answer }) => answer === null).count()) ?? 0;
  return (
    <span role="status" aria-label="Requests">
      {asked > 0 && (
        <a className={styles.asking} href="/requests">
          {counted(asked, 'request')}
        </a>
      )}
    </span>
  );
}
