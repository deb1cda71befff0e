import { z } from 'zod';
import { sumBy } from 'remeda';
import { kindOf, type Question, type Response } from '../kinds';
import { Text } from '../basics/common';
import type { Answer, Attempt, PracticeRecord, PracticeRules } from '../model/sitting';
import { roundPoints } from '../basics/points';

/**
 * Practice: a question is scored as often as the sitting allows, each later try and each hint taking off a share of
 * its points. Common practice, no source.
 */

const untouched: PracticeRecord = { tries: [], hints: [], shown: false };

export function practiceOf(attempt: Pick<Attempt, 'practice'>, questionId: string): PracticeRecord {
  return attempt.practice?.records[questionId] ?? untouched;
}

/**
 * Share of the points that is still to be had, 0 to 1, when `triesBefore` tries were made and the first `hintsTaken`
 * hints taken.
 */
export function shareLeft(
  question: Question,
  record: PracticeRecord,
  triesBefore: number,
  hintsTaken: number,
  lossPerTry: number,
): number {
  const cost = sumBy(
    record.hints.slice(0, hintsTaken),
    (id) => question.hints?.find((hint) => hint.id === id)?.cost ?? 0,
  );
  return Math.max(0, 1 - lossPerTry * triesBefore - cost);
}

/**
 * What practice gives for one question, as a share of its points: the best of its tries, each with what was to be had
 * by then. An answer that was changed after the last try counts as one more, unless the accepted one had been shown.
 */
export function practiceShare(
  question: Question,
  record: PracticeRecord,
  answer: Answer | undefined,
  lossPerTry: number,
): number {
  const kind = kindOf(question);
  const tries = record.tries.map(({ response, hints }) => ({ response, hints }));
  const last = tries.at(-1);
  const changed =
    answer && !(last && kind.sameAs(question, last.response) === kind.sameAs(question, answer.response));
  if (answer && changed && !record.shown)
    tries.push({ response: answer.response, hints: record.hints.length });
  return tries.reduce((best, { response, hints }, made) => {
    const share = kind.isBlank(response) ? 0 : kind.score(question, response).share;
    return Math.max(best, share * shareLeft(question, record, made, hints, lossPerTry));
  }, 0);
}

export const PracticeView = z.object({
  /** Whether a key can say at once how it was answered. */
  canTry: z.boolean(),
  tries: z.number().int(),
  /** Null: as many as wanted. */
  triesLeft: z.number().int().nullable(),
  /** How the last try was. */
  verdict: z.enum(['right', 'part', 'wrong']).nullable(),
  comments: Text.array(),
  /** The hints that were taken, in their words. */
  hints: Text.array(),
  hintsLeft: z.number().int(),
  /** Share of the points that the next hint costs; null where there is none. */
  nextHintCost: z.number().nullable(),
  /** The accepted answer, once it is shown. */
  accepted: Text.nullable(),
  /** Whether it may be asked for now. */
  mayShow: z.boolean(),
  /** Points that are still to be had. */
  pointsLeft: z.number(),
  /** Nothing more can be done: right, shown, or no try left. */
  done: z.boolean(),
});
export type PracticeView = z.infer<typeof PracticeView>;

/** What a student sees of one question in practice: never more than was let out by a try, a hint or giving up. */
export function practiceView(question: Question, attempt: Attempt, rules: PracticeRules): PracticeView {
  const kind = kindOf(question);
  const record = practiceOf(attempt, question.id);
  const canTry = kind.scoredBy === 'key' && kind.hasKey(question);
  const lossPerTry = attempt.practice?.lossPerTry ?? rules.lossPerTry;
  const made = record.tries.length;
  const last = record.tries.at(-1);
  const scored = last && canTry && !kind.isBlank(last.response) ? kind.score(question, last.response) : null;
  const verdict = !last
    ? null
    : !scored || scored.share <= 0
      ? 'wrong'
      : scored.share >= 1
        ? 'right'
        : 'part';
  const triesLeft = rules.tries === null ? null : Math.max(0, rules.tries - made);
  const left = rules.hints ? (question.hints ?? []).slice(record.hints.length) : [];
  const ended = verdict === 'right' || record.shown || (canTry && triesLeft === 0);
  const general =
    verdict === null
      ? ''
      : verdict === 'right'
        ? question.commentRight
        : (verdict === 'part' && question.commentPart) || question.commentWrong;
  const share = shareLeft(question, record, made, record.hints.length, lossPerTry);
  return {
    canTry,
    tries: made,
    triesLeft,
    verdict,
    comments: [...(scored?.comments ?? []), ...(general ? [general] : [])],
    hints: record.hints.flatMap((id) => question.hints?.find((hint) => hint.id === id)?.text ?? []),
    hintsLeft: ended ? 0 : left.length,
    nextHintCost: ended ? null : (left[0]?.cost ?? null),
    accepted: record.shown ? kind.keyText(question) : null,
    mayShow: rules.showAnswer && !record.shown && verdict !== 'right' && (made > 0 || !canTry),
    pointsLeft: ended ? 0 : roundPoints(share * question.points),
    done: ended,
  };
}

/** What a student does to one question in practice. */
export type PracticeAct = { act: 'try'; response: Response } | { act: 'hint' } | { act: 'show' };

/**
 * The attempt after one act of practice; the same attempt where it cannot be done: no try or hint left, right or shown
 * already, or an answer that is blank.
 *
 * @param at ISO instant
 */
export function practised(
  question: Question,
  attempt: Attempt,
  rules: PracticeRules,
  doing: PracticeAct,
  at: string,
): Attempt {
  const view = practiceView(question, attempt, rules);
  const record = practiceOf(attempt, question.id);
  const after = (next: PracticeRecord, kind: 'tried' | 'hinted' | 'shown'): Attempt => ({
    ...attempt,
    practice: {
      lossPerTry: attempt.practice?.lossPerTry ?? rules.lossPerTry,
      records: { ...attempt.practice?.records, [question.id]: next },
    },
    events: [...attempt.events, { kind, at, questionId: question.id }],
  });
  switch (doing.act) {
    case 'try': {
      if (!view.canTry || view.done || kindOf(question).isBlank(doing.response)) return attempt;
      const tries = [...record.tries, { response: doing.response, at, hints: record.hints.length }].slice(
        -200,
      );
      const next = after({ ...record, tries }, 'tried');
      return {
        ...next,
        answers: {
          ...attempt.answers,
          [question.id]: { ...attempt.answers[question.id], response: doing.response, at },
        },
      };
    }
    case 'hint': {
      const hint = question.hints?.[record.hints.length];
      if (!hint || view.hintsLeft === 0) return attempt;
      return after({ ...record, hints: [...record.hints, hint.id] }, 'hinted');
    }
    case 'show':
      return view.mayShow ? after({ ...record, shown: true }, 'shown') : attempt;
  }
}

/** Whether the answer to this question can no longer be changed. */
export function practiceEnded(question: Question, attempt: Attempt, rules: PracticeRules): boolean {
  return practiceView(question, attempt, rules).done;
}
