import styles from './KeyHint.module.css';

/** A key, shown where it acts. */
export function KeyHint({ keys }: { keys: string }) {
  return <kbd className={styles.key}>{keys}</kbd>;
}
