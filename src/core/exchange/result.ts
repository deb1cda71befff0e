import { scriptPacket } from '../handback/script';
import { itemsOf } from '../kinds/items';
import type { Attempt, Shows, Sitting } from '../model/sitting';
import { countedAttempts, lastAttempt } from '../attempts/counting';
import { countingOf } from '../scoring/counting';
import { attemptState, endOf, type Terms } from '../attempts/terms';
import type { ResultReply } from './messages';
import type { Student } from '../model/people';
import type { ExchangePlace, ExchangeReads } from './place';
import { attemptsAndTermsOf, studentWith } from './attemptOf';

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

/**
 * What the student may see of the result; null while nothing is let out. Looking at it is noted.
 *
 * @param opening false where an open page only asks whether it has changed
 */
export async function result(
  place: ExchangePlace,
  joinCode: string,
  sittingId: string,
  opening = true,
  now: number,
): Promise<ResultReply> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting) return null;
  const script = await scriptFor(place, student, sitting, now);
  const release = await place.releaseOf(student.id, sittingId);
  if (script && release && opening)
    await place.within(student.id, (keep) => keep.opened(release, new Date(now).toISOString()));
  return script;
}

/** What a student may see of a result at a moment; null while nothing is let out. Nothing is noted of it. */
export async function scriptFor(
  place: ExchangeReads,
  student: Student,
  sitting: Sitting,
  now: number,
): Promise<ResultReply> {
  const release = await place.releaseOf(student.id, sitting.id);
  if (release?.packet) return release.packet;
  const { attempts, terms } = await attemptsAndTermsOf(place, sitting, student, now);
  const shown = release
    ? { shows: release.shows, at: release.releasedAt }
    : shownAfter(sitting, attempts, terms, now);
  const paper = await paperSatBy(place, sitting, attempts);
  if (!shown || !paper) return null;
  const questions = itemsOf(paper.questions);
  const marks = await place.marksOf(countedAttempts(attempts).map(({ id }) => id));
  const marksOf = (attempt: Attempt) => marks.filter((mark) => mark.attemptId === attempt.id);
  const counts = countingOf(questions, attempts, marksOf, sitting, terms, now);
  if (!counts) return null;
  const { attempt, scorecard } = counts;
  const source = {
    sittingId: sitting.id,
    title: sitting.title,
    questions,
    attempt,
    marks: marksOf(attempt),
    releasedAt: shown.at,
    scorecard,
  };
  return scriptPacket(source, shown.shows);
}

/** The paper a sitting is scored with; before the first student starts, the version of a try-out. */
async function paperSatBy(place: ExchangeReads, sitting: Sitting, attempts: readonly Attempt[]) {
  const version = lastAttempt(attempts)?.paperVersion;
  return sitting.paperVersion === null && version !== undefined
    ? place.paperVersion(sitting.paperId, version)
    : place.paperOf(sitting);
}
