import type { ReactNode } from 'react';
import styles from './TwoColumns.module.css';

/** The work in the wide column, and the ruled margin beside it for what belongs to it. */
export function TwoColumns({
  children,
  margin,
  marginLabel,
}: {
  children: ReactNode;
  margin: ReactNode;
  marginLabel: string;
}) {
  return (
    <div className={styles.columns}>
      <div className={styles.work}>{children}</div>
      <aside className={styles.margin} aria-label={marginLabel}>
        {margin}
      </aside>
    </div>
  );
}

/** A block in the margin, with its small heading. */
export function MarginBlock({
  title,
  children,
  aside,
}: {
  title: string;
  children: ReactNode;
  aside?: ReactNode;
}) {
  return (
    <section className={styles.block}>
      <div className={styles.head}>
        <h2 className={styles.title}>{title}</h2>
        {aside}
      </div>
      {children}
    </section>
  );
}
