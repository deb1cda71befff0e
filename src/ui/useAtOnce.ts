import { useEffect, useState } from 'react';

/** Once it is written, it is read back well within this time. */
const readBackMs = 1_000;

/** @param writing ends once it is kept, or could not be; left out where nothing is being kept */
type Show<T> = (next: T, writing?: Promise<unknown>) => void;

/**
 * Something that is kept elsewhere, shown as it was changed here until it has been kept and read back: a box that is ticked is
 * ticked at once, and no letter that is typed is lost on the way, however fast one follows another and however long keeping takes.
 */
export function useAtOnce<T>(kept: T): [T, Show<T>] {
  const [mine, setMine] = useState<{ next: T; written: boolean } | null>(null);
  const [show] = useState(() => {
    let turn = 0;
    return (next: T, writing?: Promise<unknown>) => {
      const own = ++turn;
      setMine({ next, written: writing === undefined });
      void writing?.finally(() => {
        // Of several on their way, what is read back before the last one is written lacks it.
        if (own === turn) setMine((latest) => latest && { ...latest, written: true });
      });
    };
  });
  useEffect(() => setMine((latest) => (latest?.written ? null : latest)), [kept]);
  useEffect(() => {
    if (!mine?.written) return undefined;
    const timer = setTimeout(() => setMine(null), readBackMs);
    return () => clearTimeout(timer);
  }, [mine]);
  return [mine ? mine.next : kept, show];
}
