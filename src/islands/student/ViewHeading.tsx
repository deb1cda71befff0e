import { useEffect, useRef } from 'react';
import styles from './student.module.css';

/** The first view of a page is where one is already; from then on focus follows. */
let viewsShown = 0;

/** The heading of a view: when the view comes, focus goes to it, and the title of the page says it. */
export function ViewHeading({ text, id }: { text: string; id?: string }) {
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    document.title = `${text} · Gribbet`;
  }, [text]);
  useEffect(() => {
    viewsShown += 1;
    if (viewsShown === 1) return;
    window.scrollTo({ top: 0 });
    heading.current?.focus({ preventScroll: true });
  }, []);
  return (
    <h1 ref={heading} id={id} tabIndex={-1} className={styles.heading}>
      {text}
    </h1>
  );
}
