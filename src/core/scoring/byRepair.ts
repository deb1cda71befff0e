import { assertNever } from '../basics/assertNever';
import type { Question } from '../kinds';
import type { RepairRule } from '../kinds/repaired';

/** What a repair gives in place of key and marks; null where it gives nothing. Points by hand above the maximum stay. */
export function byRule(
  rule: RepairRule,
  max: number,
  answered: boolean,
  byHand: number | null,
): { max: number; state: 'given' | 'dropped'; points: number | null } | null {
  switch (rule.kind) {
    case 'answered':
      if (!answered) return null;
      return { max, state: 'given', points: Math.max(max, byHand ?? 0) };
    case 'everyone':
      return { max, state: 'given', points: Math.max(max, byHand ?? 0) };
    case 'dropped':
      return rule.maximum === 'smaller'
        ? { max: 0, state: 'dropped', points: 0 }
        : // Filled in once the rest is known.
          { max, state: 'dropped', points: null };
    default:
      return assertNever(rule);
  }
}

/** The questions that were dropped while their maximum stays, by each list of questions. */
const standing = new WeakMap<readonly Question[], ReadonlySet<string>>();

export function standingIn(questions: readonly Question[]): ReadonlySet<string> {
  const known = standing.get(questions);
  if (known) return known;
  const found = new Set(
    questions.flatMap(({ id, repaired }) =>
      repaired?.rule?.kind === 'dropped' && repaired.rule.maximum === 'same' ? [id] : [],
    ),
  );
  standing.set(questions, found);
  return found;
}

interface Floor {
  questionId: string;
  /** The questions as they were before it was repaired. */
  before: readonly Question[];
}

const floors = new WeakMap<readonly Question[], { floor: Floor | null }>();

/** The last repair by which nobody may lose; null where there is none. */
export function lastFloor(questions: readonly Question[]): Floor | null {
  const known = floors.get(questions);
  if (known) return known.floor;
  let last: Question | null = null;
  for (const question of questions)
    if (question.repaired?.floor && question.repaired.floor.at > (last?.repaired?.floor?.at ?? ''))
      last = question;
  const at = last?.repaired?.floor?.at;
  // What a question asks beside its answer was repaired together with it.
  const before = questions.map((each) => {
    const floor = each.repaired?.floor;
    return floor && floor.at === at ? floor.question : each;
  });
  const floor = last && { questionId: last.id, before };
  floors.set(questions, { floor });
  return floor;
}
