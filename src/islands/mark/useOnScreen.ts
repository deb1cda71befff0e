import { useRef, useState } from 'react';
import type { LikeMark } from '@/core/marking/piles/like';
import type { SameAnswers } from '@/core/marking/sameAnswers';

/** Which answers stand on the screen, which have been there, and to how many of them points are put forward. */
export function useOnScreen(groups: readonly SameAnswers[], likes: ReadonlyMap<string, LikeMark>) {
  /** The answers that have been on the screen: a pile is marked as one only once all of it has. */
  const seen = useRef(new Set<string>());
  /** Looks which rows are whole on the screen, in their order. */
  const rows = useRef<() => string[]>(() => []);
  const [forward, setForward] = useState(0);
  // What was set aside for a second look is looked at by itself.
  const forwardOf = (ids: readonly string[]) => {
    const aside = new Set(groups.flatMap((group) => (group.aside ? [group.id] : [])));
    return ids.filter((id) => likes.has(id) && !aside.has(id));
  };
  return {
    seen,
    rows,
    /** How many of those on the screen have points put forward. */
    forward,
    /** These are on the screen now. */
    lookedAt: (ids: string[]) => {
      for (const id of ids) seen.current.add(id);
      setForward(forwardOf(ids).length);
    },
    /** Those on the screen that have points put forward, in their order. */
    forwardIds: () => forwardOf(rows.current()),
  };
}
