import { useEffect, useRef } from 'react';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { SameAnswers } from '@/core/marking/sameAnswers';

/** What answers have once what was done to them is stored. */
export type ActedAs = (each: SameAnswers) => Partial<SameAnswers>;

interface Acted {
  is: Partial<SameAnswers>;
  /** As it was drawn when that was done. */
  drawn: SameAnswers;
  /** How many acts on it are not stored yet. */
  underWay: number;
}

/**
 * Answers as they were acted on. Held keys come faster than drawing: answers that were given points are not drawn with them
 * yet. Each holds until it is stored and drawn otherwise than it was.
 *
 * @param drawnMarks changes once marks that were given are drawn
 */
export function useActed(entries: readonly AnswerEntry[], drawnMarks: unknown) {
  const acted = useRef(new Map<string, Acted>());
  useEffect(() => {
    for (const { group } of entries) {
      const by = acted.current.get(group.id);
      if (by?.underWay === 0 && by.drawn !== group) acted.current.delete(group.id);
    }
  }, [entries, drawnMarks]);
  return {
    /** All answers, those that were acted on as they will be. */
    asActed: (): SameAnswers[] =>
      entries.map(({ group }) => {
        const by = acted.current.get(group.id);
        return by ? { ...group, ...by.is } : group;
      }),
    /** Whether points were given to all of them, drawn or not. */
    wasGiven: (id: string): boolean => acted.current.get(id)?.is.waiting === 0,
    /** Shows answers as they will be while that is stored. @returns to be called once it is */
    actedOn: (rows: readonly SameAnswers[], is: ActedAs): (() => void) => {
      for (const each of rows) {
        const before = acted.current.get(each.id);
        const drawn = entries.find(({ group }) => group.id === each.id)?.group ?? each;
        acted.current.set(each.id, { is: is(each), drawn, underWay: (before?.underWay ?? 0) + 1 });
      }
      return () => {
        for (const { id } of rows) {
          const by = acted.current.get(id);
          if (by) by.underWay--;
        }
      };
    },
  };
}
