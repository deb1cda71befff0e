import { kindOf, type Question, type Response } from '../kinds';

/** How the key of one question would change. */
export interface KeyChange {
  question: Question;
  changed: Question;
  /** The key in words, before and after. */
  before: string;
  after: string;
}

/**
 * What becomes of the keys when a paper that was filled in is taken as the key: only the questions whose key would be
 * another. What was left blank stays as it is.
 *
 * @param responses by question id
 */
export function keyChanges(
  questions: readonly Question[],
  responses: Readonly<Record<string, Response>>,
  newId: () => string,
): KeyChange[] {
  return questions.flatMap((question) => {
    const kind = kindOf(question);
    const response = responses[question.id];
    if (!response || kind.isBlank(response)) return [];
    const changed = kind.keyedBy(question, response, newId);
    const [before, after] = [kind.keyText(question), kind.keyText(changed)];
    return before === after ? [] : [{ question, changed, before, after }];
  });
}
