import { sumBy } from 'remeda';
import type { Question } from '@/core/kinds';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { LikeMark } from '@/core/marking/piles/like';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { actWhenRoom } from '@/desk/act';
import { markAnswers, type MarkStep } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import type { ActedAs, useActed } from './useActed';

export interface MarkActsProps {
  sittingId: string;
  /** Who marks. */
  markerId: string;
  question: Question;
  number: string;
  entries: readonly AnswerEntry[];
  /** What is put forward, by the id of the row. */
  likes: ReadonlyMap<string, LikeMark>;
  /** Changes once marks that were given are drawn. */
  drawnMarks: unknown;
  /** Called before anything is done to answers. */
  begin: (id: string) => void;
}

export type MarkBasis = ReturnType<typeof markBasis>;

/** What every act needs: whom it concerns, and how it is kept. */
export function markBasis(props: MarkActsProps, acted: ReturnType<typeof useActed>) {
  const { sittingId, markerId, question, number, entries, likes, begin } = props;
  /** What is marked together with these: themselves, or all of a pile that is marked as one. */
  const together = (group: SameAnswers): SameAnswers[] => {
    const pile = entries.find((entry) => entry.group.id === group.id)?.pile;
    return pile?.agreed ? pile.members : [group];
  };
  const countOf = (group: SameAnswers) => sumBy(together(group), ({ answers }) => answers.length);
  const place = (attemptIds: readonly string[]) => ({
    sittingId,
    questionId: question.id,
    attemptIds,
    markerId,
  });
  const keep = (
    group: SameAnswers,
    step: MarkStep,
    said: string,
    { joins, why, is }: { joins?: string; why?: string; is?: ActedAs } = {},
  ) => {
    const followed = is ? acted.actedOn(together(group), is) : <T>(write: Promise<T>) => write;
    const attemptIds = together(group).flatMap(({ answers }) => answers.map(({ attemptId }) => attemptId));
    const now = isoNow();
    void actWhenRoom(() =>
      followed(markAnswers(place(attemptIds), step, `Question ${number}: ${said}`, now, joins, why)),
    );
  };
  return { question, number, entries, likes, begin, together, countOf, place, keep, acted };
}
