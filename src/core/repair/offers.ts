import type { AnswerFigures, CategoryFigures } from '../analysis/answerFigures';
import { countedAnswer } from '../attempts/late';
import { kindOf, type Question } from '../kinds';
import type { Wording } from '../kinds/QuestionKind';
import type { Seat } from '../seats/seats';

/** An answer that gives less now, and the question repaired so that it gives more. */
export interface RepairOffer {
  category: CategoryFigures;
  /** With it as the key; null where the kind has no options. */
  keyed: Question | null;
  /** Accepting it as well, for all the points or half of them. */
  accepting: { share: number; changed: Question }[];
}

/** So many of the commonest are offered. */
const mostOffers = 4;

/**
 * What the answers to a question suggest: the commonest that give less than all, each with the repairs that are a press away.
 *
 * @param seats of the students who answered it
 */
export function repairOffers(
  question: Question,
  { categories }: AnswerFigures,
  seats: readonly Seat[],
  newId: () => string,
): RepairOffer[] {
  const kind = kindOf(question);
  if (kind.scoredBy === 'hand' || !kind.accepting) return [];
  return categories
    .filter(({ share, count }) => share !== null && share < 1 && count > 0)
    .sort((a, b) => b.count - a.count)
    .slice(0, mostOffers)
    .flatMap((category) => {
      const wording = wordingOf(question, category, seats);
      if (!wording) return [];
      const keyed = kind.withOptionRight ? kind.keyedBy(question, { picked: [category.id] }, newId) : null;
      const accepting = [1, 0.5].flatMap((share) => {
        const changed = kind.accepting?.(question, wording, share, newId);
        return changed ? [{ share, changed }] : [];
      });
      return [{ category, keyed, accepting }];
    });
}

/** How an answer of a category is put, for accepting it; undefined where nothing of it can be accepted. */
function wordingOf(
  question: Question,
  { id, part, studentIds }: CategoryFigures,
  seats: readonly Seat[],
): Wording | undefined {
  const kind = kindOf(question);
  const gave = new Set(studentIds);
  for (const { student, attempt } of seats) {
    const response = gave.has(student.id) && attempt ? countedAnswer(attempt, question.id)?.response : null;
    if (!response) continue;
    const wordings = kind.unaccepted?.(question, response) ?? [];
    // Of several things asked, the one that this answer is to.
    const found = wordings.find((wording) => part === undefined || part.id === wording.id);
    if (found && kind.categoriesOf(question, response).some((each) => each.id === id)) return found;
  }
  return undefined;
}
