import { kindNamed } from '../kinds';
import type { Invites } from '../model/release';
import type { Attempt, ExceptionRequest } from '../model/sitting';
import type { ScriptPacket, ScriptQuestion } from './script';

/** What a student did and may do once a result is back. */
export interface Afterwards {
  invites: Invites | undefined;
  attempts: readonly Pick<Attempt, 'id' | 'corrections'>[];
  requests: readonly ExceptionRequest[];
}

/** So often a student may ask about the mark of one question. */
const mostAsked = 5;

/** What was asked about a mark, oldest first. */
export const askedAbout = (requests: readonly ExceptionRequest[], questionId: string): ExceptionRequest[] =>
  requests
    .filter((request) => request.asks === 'mark' && request.questionId === questionId)
    .sort((a, b) => a.at.localeCompare(b.at));

/** Whether points were lost in a question, as far as that is let out. */
const lost = ({ points, question }: ScriptQuestion): boolean =>
  points !== undefined && points < question.points;

/**
 * A script with what was answered again, what was asked about its marks, and what may be done now. It may be answered again only
 * while what is accepted is not seen.
 *
 * @param now ms since 1970
 */
export function withAfterwards(
  script: ScriptPacket,
  { invites, attempts, requests }: Afterwards,
  now: number,
): ScriptPacket {
  const corrections = attempts.find(({ id }) => id === script.attemptId)?.corrections ?? {};
  return {
    ...script,
    questions: script.questions.map((row) => {
      const { id, kind } = row.question;
      const made = corrections[id];
      // One that the desk has not seen yet has no points so far.
      const correction =
        row.correction ??
        (made && row.points !== undefined
          ? { response: made.response, at: made.at, points: null }
          : undefined);
      const asked = askedAbout(requests, id).map(({ words, at, answer }) => ({
        ...{ words, at },
        answer: answer && { words: answer.words, at: answer.at },
      }));
      const correct = invites?.correct;
      const open = correct && (correct.until === null || now < Date.parse(correct.until));
      const mayCorrect =
        open &&
        lost(row) &&
        !correction &&
        row.accepted === undefined &&
        !row.lines &&
        kindNamed(kind).takesFiles !== true;
      const mayAsk =
        invites?.asks === true &&
        row.points !== undefined &&
        asked.length < mostAsked &&
        asked.every(({ answer }) => answer !== null);
      return {
        ...row,
        ...(correction && { correction }),
        ...(asked.length > 0 && { asked }),
        ...(mayCorrect && { mayCorrect: { share: correct.share, until: correct.until } }),
        ...(mayAsk && { mayAsk }),
      };
    }),
  };
}
