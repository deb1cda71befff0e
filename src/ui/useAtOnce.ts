import { useEffect, useState } from 'react';

/** What is changed here is read back well within this time. */
const readBackMs = 1_000;

/**
 * Something that is kept elsewhere, shown as it was changed here until it has been read back: a box that is ticked is ticked at
 * once, and no letter that is typed is lost on the way, however fast one follows another.
 */
export function useAtOnce<T>(kept: T): [T, (next: T) => void] {
  const [mine, setMine] = useState<{ next: T } | null>(null);
  useEffect(() => {
    if (!mine) return undefined;
    const timer = setTimeout(() => setMine(null), readBackMs);
    return () => clearTimeout(timer);
  }, [mine]);
  const [show] = useState(() => (next: T) => setMine({ next }));
  return [mine ? mine.next : kept, show];
}
