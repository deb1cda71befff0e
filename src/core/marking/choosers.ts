import { kindOf, type Question } from '../kinds';
import type { Category } from '../kinds/QuestionKind';
import type { AnswerToMark, SameAnswers } from './sameAnswers';

/** Something a question offers, and the answers that chose it, alone or with others. */
export interface Chosen {
  category: Category;
  answers: AnswerToMark[];
}

/** What a question offers, each with the answers that chose it; none for kinds that offer nothing. */
export function choosersOf(question: Question, groups: readonly SameAnswers[]): Chosen[] {
  const kind = kindOf(question);
  const chosen = new Map(
    kind.offered(question).map((category): [string, Chosen] => [category.id, { category, answers: [] }]),
  );
  for (const { answers } of groups)
    for (const answer of answers)
      if (answer.response)
        for (const { id } of kind.categoriesOf(question, answer.response))
          chosen.get(id)?.answers.push(answer);
  return [...chosen.values()];
}

/** A comment with words added to it; words that are in it already are not said twice. */
export const withWordsAdded = (comment: string, words: string): string =>
  comment.split('\n').includes(words) ? comment : [comment, words].filter(Boolean).join('\n');
