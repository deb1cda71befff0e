import type { ReactNode } from 'react';
import styles from './EmptyState.module.css';

/** An empty view: what to do first, and the button for it. */
export function EmptyState({
  title,
  children,
  action,
}: {
  title: string;
  children?: ReactNode;
  action?: ReactNode;
}) {
  return (
    <div className={styles.empty}>
      <h2 className={styles.title}>{title}</h2>
      {children && <p className={styles.words}>{children}</p>}
      {action}
    </div>
  );
}
