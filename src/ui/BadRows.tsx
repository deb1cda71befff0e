import styles from './BadRows.module.css';
import { counted } from '@/words/format';

/** The rows of a list or file that could not be read, each by its number with the reason. */
export function BadRows({ rows }: { rows: readonly { line: number; why: string }[] }) {
  if (rows.length === 0) return null;
  return (
    <div className={styles.bad} role="alert">
      <strong>{counted(rows.length, 'row')} couldn’t be read:</strong>
      <ul>
        {rows.map(({ line, why }) => (
          <li key={line}>
            row {line}: {why}
          </li>
        ))}
      </ul>
    </div>
  );
}
