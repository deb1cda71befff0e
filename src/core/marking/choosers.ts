import { kindOf, type Question } from '../kinds';
import type { Category } from '../kinds/QuestionKind';
import type { AnswerToMark, SameAnswers } from './sameAnswers';

/** Something a question offers, and the answers that chose it, alone or with others. */
export interface Chosen {
  category: Category;
  answers: AnswerToMark[];
}

/**
 * What a question offers, each with the answers that chose it. None where no answer chose several: there equal answers are
 * those that chose the same, and are commented together anyway.
 */
export function choosersOf(question: Question, groups: readonly SameAnswers[]): Chosen[] {
  const kind = kindOf(question);
  const chosen = new Map(
    kind.offered(question).map((category): [string, Chosen] => [category.id, { category, answers: [] }]),
  );
  let several = false;
  for (const answer of groups.flatMap(({ answers }) => answers)) {
    if (!answer.response) continue;
    const of = kind.categoriesOf(question, answer.response).flatMap(({ id }) => chosen.get(id) ?? []);
    for (const each of of) each.answers.push(answer);
    several ||= of.length > 1;
  }
  return several ? [...chosen.values()] : [];
}

/** A comment with words added to it; words that are in it already are not said twice. */
export const withWordsAdded = (comment: string, words: string): string =>
  comment.split('\n').includes(words) ? comment : [comment, words].filter(Boolean).join('\n');
