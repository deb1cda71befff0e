import styles from './Wordmark.module.css';

/** The name, with the fill glyph half full. */
export function Wordmark({ href }: { href?: string }) {
  const inside = (
    <>
      <svg width="18" height="18" viewBox="0 0 12 12" aria-hidden>
        <rect x="1" y="6" width="10" height="5" fill="currentColor" />
        <rect x="1" y="1" width="10" height="10" fill="none" stroke="currentColor" strokeWidth="1.4" />
      </svg>
      Gribbet
    </>
  );
  return href ? (
    <a className={styles.mark} href={href}>
      {inside}
    </a>
  ) : (
    <span className={styles.mark}>{inside}</span>
  );
}
