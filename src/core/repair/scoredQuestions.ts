import type { Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import type { PaperContent } from '../model/paper';
import type { Repair } from '../model/repair';

/**
 * The questions that a sitting is scored and marked with: those of its paper, working apart, each with what its repairs make of
 * it. The one answer for desk, student, figures and files.
 *
 * @param repairs of the sitting, in any order
 */
export function scoredQuestions(
  { questions }: Pick<PaperContent, 'questions'>,
  repairs: readonly Repair[],
): Question[] {
  const items = itemsOf(questions);
  if (repairs.length === 0) return items;
  const known = new Map(questions.map((question) => [question.id, question]));
  const byId = new Map(items.map((item) => [item.id, item]));
  const inTime = [...repairs].sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : 0));
  for (const [questionId, question] of known) {
    const of = inTime.filter((repair) => repair.questionId === questionId);
    const [first] = of;
    let before = first && itemsOf([first.before]);
    for (const [index, repair] of of.entries())
      before = repairedItems(before ?? [], itemsOf([of[index + 1]?.before ?? question]), repair);
    for (const item of before ?? []) byId.set(item.id, item);
  }
  return items.map((item) => byId.get(item.id) ?? item);
}

/**
 * The items of one question as they are scored after a repair.
 *
 * @param before as they were scored until then
 * @param after as the paper has them since
 */
export function repairedItems(
  before: readonly Question[],
  after: readonly Question[],
  { itemId, rule, nobodyLoses, at }: Pick<Repair, 'itemId' | 'rule' | 'nobodyLoses' | 'at'>,
): Question[] {
  return after.map((item) => {
    const own = item.id === itemId ? rule : null;
    const question = before.find(({ id }) => id === item.id);
    const floor = nobodyLoses && question ? { question, at } : null;
    return own === null && floor === null ? item : { ...item, repaired: { rule: own, floor } };
  });
}
