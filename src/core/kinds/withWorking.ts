import { kindOf, type Question } from './index';
import { allWays } from './working/ways';

/** Working asked for, with this share of the points by key; null: no longer. Only where there is a key. */
export function withWorking(question: Question, keyShare: number | null): Question {
  if (kindOf(question).scoredBy === 'hand') return question;
  const { working, ...rest } = question;
  if (keyShare === null) return rest as Question; // the kind's own fields are untouched
  return {
    ...question,
    working: { ...(working ?? { modelAnswer: '', scheme: [], ways: allWays }), keyShare },
  };
}
