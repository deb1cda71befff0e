import { groupBy } from '@/core/basics/groupBy';
import { countedAnswer } from '@/core/attempts/late';
import { kindOf, type Question } from '@/core/kinds';
import type { EarlierMark, EarlierMarks } from '@/core/marking/putForward';
import { marksThatCount } from '@/core/scoring/marksThatCount';
import { desk } from './tables';

/** Earlier sittings of a paper that are looked through, the latest first. */
const mostSittings = 5;

/**
 * What equal answers to the same question have in other sittings of the same paper; the latest sitting that has them counts.
 * Answers that have unequal points there are left out.
 */
export async function earlierMarks(sittingId: string, question: Question): Promise<EarlierMarks> {
  const all = new Map<string, EarlierMark>();
  const kind = kindOf(question);
  if (kind.scoredBy !== 'hand') return all;
  const sitting = await desk.sittings.get(sittingId);
  const others = await desk.sittings.where({ paperId: sitting?.paperId ?? '' }).toArray();
  const latest = others
    .filter(({ id, rehearsal }) => id !== sittingId && !rehearsal)
    .sort((a, b) => (a.createdAt < b.createdAt ? 1 : -1));
  for (const { id, title } of latest.slice(0, mostSittings)) {
    const marks = await desk.marks.where({ sittingId: id, questionId: question.id }).toArray();
    const given = new Map<string, EarlierMark | null>();
    const ofAttempt = groupBy(marks, ({ attemptId }) => attemptId);
    const attempts = await desk.attempts.bulkGet([...ofAttempt.keys()]);
    for (const attempt of attempts) {
      const answer = attempt && countedAnswer(attempt, question.id);
      const mark = marksThatCount(marks.filter(({ attemptId }) => attemptId === attempt?.id)).get(
        question.id,
      );
      if (!answer || kind.isBlank(answer.response) || !mark || mark.points === null) continue;
      if (mark.points > question.points) continue;
      const same = kind.sameAs(question, answer.response);
      const known = given.get(same);
      if (known === undefined)
        given.set(same, { points: mark.points, lines: mark.lines, times: 1, sitting: title });
      else if (known?.points === mark.points) known.times++;
      else given.set(same, null);
    }
    for (const [same, mark] of given) if (mark && !all.has(same)) all.set(same, mark);
  }
  return all;
}
