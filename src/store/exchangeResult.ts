import type { ResultReply } from '@/carriers/Carrier';
import { scriptPacket } from '@/core/handback/script';
import { itemsOf } from '@/core/kinds/items';
import type { Attempt, Shows, Sitting } from '@/core/model/sitting';
import { countingAttempt, lastAttempt } from '@/core/running/counting';
import { attemptState, endOf, isAside, type Terms } from '@/core/running/terms';
import { jointScorecard, scoreAttempt } from '@/core/scoring/scoreAttempt';
import { dropStandings } from './command';
import { standingOfStudent, studentWith } from './exchangePlace';
import { paperOf } from './queries';
import { desk } from './tables';

/** What a student sees straight after handing in, where the sitting says so and nothing was handed back yet. */
export function shownAfter(
  sitting: Sitting,
  attempts: readonly Attempt[],
  terms: Terms,
  now: number,
): { shows: Shows; at: string } | null {
  const last = lastAttempt(attempts);
  if (!sitting.after || !last || attemptState(last, terms, now) === 'working') return null;
  return { shows: sitting.after, at: new Date(endOf(last, terms, now) ?? now).toISOString() };
}

/** What the student may see of the result; null while nothing is let out. Looking at it is noted. */
export async function result(joinCode: string, sittingId: string, now: number): Promise<ResultReply> {
  const student = await studentWith(joinCode);
  const sitting = await desk.sittings.get(sittingId);
  if (!student || !sitting) return null;
  const release = await desk.releases.get([sittingId, student.id]);
  const { attempts, terms } = await standingOfStudent(sitting, student, now);
  const shown = release
    ? { shows: release.shows, at: release.releasedAt }
    : shownAfter(sitting, attempts, terms, now);
  const paper = await paperSatBy(sitting, attempts);
  if (!shown || !paper) return null;
  const questions = itemsOf(paper.questions);
  const counted = attempts.filter((attempt) => !isAside(attempt)).sort((a, b) => a.number - b.number);
  const marks = await desk.marks
    .where('attemptId')
    .anyOf(counted.map((each) => each.id))
    .toArray();
  const marksOf = (attempt: Attempt) => marks.filter((mark) => mark.attemptId === attempt.id);
  const scored = (attempt: Attempt) => scoreAttempt(questions, attempt, marksOf(attempt));
  const attempt = countingAttempt(attempts, sitting, terms, now, (each) => scored(each).total);
  if (!attempt) return null;
  if (release) {
    await desk.releases.update([sittingId, student.id], {
      openedAt: [...release.openedAt, new Date(now).toISOString()],
    });
    await dropStandings(desk, sittingId);
  }
  const source = {
    sittingId,
    title: sitting.title,
    questions,
    attempt,
    marks: marksOf(attempt),
    releasedAt: shown.at,
    scorecard: sitting.counts === 'mean' ? jointScorecard(scored(attempt), counted.map(scored), true) : null,
  };
  return scriptPacket(source, shown.shows);
}

/** The paper a sitting is scored with; before the first student starts, the version of a try-out. */
async function paperSatBy(sitting: Sitting, attempts: readonly Attempt[]) {
  const version = lastAttempt(attempts)?.paperVersion;
  return sitting.paperVersion === null && version !== undefined
    ? desk.paperVersions.get([sitting.paperId, version])
    : paperOf(sitting);
}
