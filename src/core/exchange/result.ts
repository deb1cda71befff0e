import { scriptPacket } from '../handback/script';
import { itemsOf } from '../kinds/items';
import type { Attempt, Shows, Sitting } from '../model/sitting';
import { countedAttempts, lastAttempt } from '../attempts/counting';
import { countingOf } from '../scoring/counting';
import { attemptState, endOf, type Terms } from '../attempts/terms';
import type { ResultReply } from './messages';
import type { ExchangePlace } from './place';
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
  now: number,
  opening = true,
): Promise<ResultReply> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting) return null;
  const release = await place.releaseOf(student.id, sittingId);
  const { attempts, terms } = await attemptsAndTermsOf(place, sitting, student, now);
  const opened = () =>
    place.within(student.id, async (keep) => {
      if (release && opening) await keep.opened(release, new Date(now).toISOString());
    });
  if (release?.packet) {
    await opened();
    return release.packet;
  }
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
  await opened();
  const source = {
    sittingId,
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
async function paperSatBy(place: ExchangePlace, sitting: Sitting, attempts: readonly Attempt[]) {
  const version = lastAttempt(attempts)?.paperVersion;
  return sitting.paperVersion === null && version !== undefined
    ? place.paperVersion(sitting.paperId, version)
    : place.paperOf(sitting);
}
