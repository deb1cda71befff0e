import { useState } from 'react';

/** The same list as before where it says the same: what hangs on it is not worked out anew. */
export function useHeld(list: readonly string[]): readonly string[] {
  const [held, setHeld] = useState(list);
  const same = sameList(held, list);
  if (!same) setHeld(list);
  return same ? held : list;
}

/** By a plain loop: it is asked of ten thousand texts at every mark. */
export function sameList(a: readonly string[], b: readonly string[]): boolean {
  if (a === b) return true;
  if (a.length !== b.length) return false;
  for (let at = 0; at < a.length; at++) if (a[at] !== b[at]) return false;
  return true;
}
