import { useCallback, useState } from 'react';

/**
 * Something that is kept elsewhere, shown as it was changed here until it is read back: a box that is ticked is ticked at once, and
 * no letter that is typed is lost on the way.
 *
 * @param kept another object once it has been read again
 */
export function useAtOnce<T>(kept: T): [T, (next: T) => void] {
  const [mine, setMine] = useState<{ over: T; next: T } | null>(null);
  const show = useCallback((next: T) => setMine({ over: kept, next }), [kept]);
  return [mine && mine.over === kept ? mine.next : kept, show];
}
