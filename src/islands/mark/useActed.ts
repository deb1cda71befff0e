import { useEffect, useState } from 'react';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { isFull } from '@/desk/act';

/** What answers have once what was done to them is stored. */
export type ActedAs = (each: SameAnswers) => Partial<SameAnswers>;

interface Acted {
  is: Partial<SameAnswers>;
  /** As it was drawn when that was done. */
  drawn: SameAnswers;
  /** How many acts on it are not stored yet. */
  underWay: number;
}

/** Answers as they were acted on, until that is stored and drawn. */
export class ActedAnswers {
  private readonly acted = new Map<string, Acted>();
  private readonly listeners = new Set<() => void>();

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  /** The points that answers were given since they were drawn so; undefined where there is nothing of the kind. */
  pointsOf(group: SameAnswers): number | null | undefined {
    const by = this.acted.get(group.id);
    return by?.drawn === group ? by.is.points : undefined;
  }

  /** Answers as they will be. */
  of(group: SameAnswers): SameAnswers {
    const by = this.acted.get(group.id);
    return by ? { ...group, ...by.is } : group;
  }

  /** Whether points were given to all of them, drawn or not. */
  wasGiven = (id: string): boolean => this.acted.get(id)?.is.waiting === 0;

  /** @returns follows the writing of it: once it is stored it holds until it is drawn, and no longer where it failed */
  put(rows: readonly { group: SameAnswers; drawn: SameAnswers }[], is: ActedAs) {
    for (const { group, drawn } of rows) {
      const underWay = (this.acted.get(group.id)?.underWay ?? 0) + 1;
      this.acted.set(group.id, { is: is(group), drawn, underWay });
    }
    this.tell();
    const ended = () => {
      for (const { group } of rows) {
        const by = this.acted.get(group.id);
        if (by) by.underWay--;
      }
    };
    return async <T>(write: Promise<T>): Promise<T> => {
      try {
        const written = await write;
        ended();
        return written;
      } catch (error) {
        // What waits for room is written later.
        if (!isFull(error)) {
          for (const { group } of rows) this.acted.delete(group.id);
          this.tell();
        }
        throw error;
      }
    };
  }

  /** These were drawn: what is stored and shows in them is forgotten. */
  drawn(entries: readonly AnswerEntry[]): void {
    if (this.acted.size === 0) return;
    for (const { group } of entries) {
      const by = this.acted.get(group.id);
      if (by?.underWay === 0 && by.drawn !== group) this.acted.delete(group.id);
    }
  }

  private tell(): void {
    for (const listener of this.listeners) listener();
  }
}

/**
 * Answers as they were acted on. Held keys come faster than drawing: answers that were given points are not drawn with them
 * yet. Each holds until it is stored and drawn otherwise than it was.
 *
 * @param drawnMarks changes once marks that were given are drawn
 */
export function useActed(entries: readonly AnswerEntry[], drawnMarks: unknown) {
  const [answers] = useState(() => new ActedAnswers());
  useEffect(() => answers.drawn(entries), [answers, entries, drawnMarks]);
  return {
    answers,
    /** All answers, those that were acted on as they will be. */
    asActed: (): SameAnswers[] => entries.map(({ group }) => answers.of(group)),
    wasGiven: answers.wasGiven,
    /** Shows answers as they will be while that is stored. @returns follows the writing of it */
    actedOn: (rows: readonly SameAnswers[], is: ActedAs) => {
      const ids = new Set(rows.map(({ id }) => id));
      const drawn = new Map(entries.flatMap(({ group }) => (ids.has(group.id) ? [[group.id, group]] : [])));
      return answers.put(
        rows.map((group) => ({ group, drawn: drawn.get(group.id) ?? group })),
        is,
      );
    },
  };
}
