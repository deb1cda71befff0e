import { useEffect, useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import { dayAlone } from '@/words/format';
import styles from './student.module.css';

interface OtherResultsProps {
  carrier: Carrier;
  who: Greeting;
  /** The one that is open. */
  here: string;
  open: (sitting: HomeSitting) => void;
}

/** What else was handed back, newest first. */
export function OtherResults({ carrier, who, here, open }: OtherResultsProps) {
  const [others, setOthers] = useState<HomeSitting[]>([]);
  useEffect(() => {
    let shown = true;
    // Where it can't be told now, the result itself is what counts.
    carrier.home(who.joinCode).then(
      (all) =>
        shown && setOthers(all.filter(({ handedBack, sittingId }) => handedBack && sittingId !== here)),
      () => undefined,
    );
    return () => {
      shown = false;
    };
  }, [carrier, who, here]);
  if (others.length === 0) return null;
  return (
    <section aria-label="Other results" className={styles.print}>
      <h2 className={styles.sectionHead}>Other results</h2>
      <ul className={styles.papers}>
        {others.map((sitting) => (
          <li key={sitting.sittingId}>
            <button type="button" className={styles.quiet} onClick={() => open(sitting)}>
              {sitting.title}, {dayAlone(sitting.opensAt)}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
