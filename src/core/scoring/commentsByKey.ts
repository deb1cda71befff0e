import { kindOf, type Question } from '../kinds';
import type { Answer } from '../model/sitting';
import type { Award } from './scoreAttempt';

/** The comments a student has earned by the key for one answer: per option or accepted answer, then right or wrong. */
export function commentsByKey(question: Question, answer: Answer | undefined, award: Award): string[] {
  const kind = kindOf(question);
  const comments: string[] = [];
  if (answer && award.answered && kind.scoredBy === 'key' && kind.hasKey(question))
    comments.push(...kind.score(question, answer.response).comments);
  if (award.points !== null) {
    const general =
      award.points >= award.max
        ? question.commentRight
        : (award.points > 0 && question.commentPart) || question.commentWrong;
    if (general) comments.push(general);
  }
  return comments;
}
