import { filesIn } from '../basics/filesIn';
import { withAfterwards } from '../handback/afterwards';
import { kindNamed, type Response } from '../kinds';
import { fillOf } from '../kinds/fillings';
import { limitedScript, scriptPacket } from '../handback/script';
import { isShown, letOutAt, type LetOut, type Shows } from '../model/release';
import { scoredQuestions } from '../repair/scoredQuestions';
import type { Attempt, Sitting } from '../model/sitting';
import { countedAttempts, lastAttempt } from '../attempts/counting';
import { countingOf } from '../scoring/counting';
import { attemptState, endOf, type Terms } from '../attempts/terms';
import type { ResultReply } from './messages';
import type { Student } from '../model/people';
import type { ExchangeRepository, ExchangeReads, KeptRelease } from './repository';
import { attemptsAndTermsOf, studentWith } from './attemptOf';

/** What a student sees straight after handing in, where the sitting says so and nothing was handed back yet. */
export function shownAfter(
  sitting: Sitting,
  attempts: readonly Attempt[],
  terms: Terms,
  now: number,
): LetOut | null {
  const last = lastAttempt(attempts);
  if (!sitting.after || !last || attemptState(last, terms, now) === 'working') return null;
  const end = endOf(last, terms, now) ?? now;
  if (sitting.afterMs !== undefined && now >= end + sitting.afterMs) return null;
  return { shows: sitting.after, at: new Date(end).toISOString() };
}

/** What is let out of a result at an instant: by its stages; before the first of them, what is seen straight after. */
export function letOutFor(
  release: KeptRelease | undefined,
  sitting: Sitting,
  attempts: readonly Attempt[],
  terms: Terms,
  now: number,
): LetOut | null {
  if (release) {
    const letOut = letOutAt(release, now);
    const { stages } = release;
    const ahead = stages.every(({ from }) => from !== null && Date.parse(from) > now);
    if (letOut || stages.length === 0 || !ahead) return letOut;
  }
  return shownAfter(sitting, attempts, terms, now);
}

/**
 * What the student may see of the result; null while nothing is let out. Looking at it is noted.
 *
 * @param opening false where an open page only asks whether it has changed
 */
export async function result(
  place: ExchangeRepository,
  joinCode: string,
  sittingId: string,
  opening = true,
  now: number,
): Promise<ResultReply> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting) return null;
  const script = await scriptNow(place, student, sitting, now);
  const release = await place.releaseOf(student.id, sittingId);
  if (script && release && opening)
    await place.within(student.id, 'opening', (keep) => keep.opened(release, new Date(now).toISOString()));
  return script;
}

/** What a student may see of a result now, with what was done and may be done since it came back. */
export async function scriptNow(
  place: ExchangeReads,
  student: Student,
  sitting: Sitting,
  now: number,
): Promise<ResultReply> {
  const script = await scriptFor(place, student, sitting, now);
  if (!script) return null;
  const [release, attempts, requests] = await Promise.all([
    place.releaseOf(student.id, sitting.id),
    place.attemptsOf(student.id, sitting.id),
    place.requestsOf(student.id, sitting.id),
  ]);
  return withAfterwards(script, { invites: release?.invites, attempts, requests }, now);
}

/** Answers a missed question again; false where that may not be done, or was done already. */
export async function correct(
  place: ExchangeRepository,
  joinCode: string,
  sittingId: string,
  questionId: string,
  response: Response,
  now: number,
): Promise<boolean> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting) return false;
  const script = await scriptNow(place, student, sitting, now);
  const row = script?.questions.find(({ question }) => question.id === questionId);
  const mayCorrect = row?.mayCorrect;
  if (!row || !mayCorrect || filesIn(response).length > 0) return false;
  return place.within(student.id, 'attempt', async (keep) => {
    const attempt = (await place.attemptsOf(student.id, sittingId)).find(
      ({ id }) => id === script?.attemptId,
    );
    // Another device may have done so just now.
    if (!attempt || attempt.corrections?.[questionId]) return false;
    const fits = kindNamed(row.question.kind).responseSchema.safeParse(response);
    if (!fits.success || fillOf(row.question, fits.data) === 'open') return false;
    const correction = { response: fits.data, at: new Date(now).toISOString(), share: mayCorrect.share };
    await keep.attempt({ ...attempt, corrections: { ...attempt.corrections, [questionId]: correction } });
    return true;
  });
}

/**
 * What a student may see of a result at an instant; null while nothing is let out. Nothing is noted of it.
 *
 * @param shows what of it is made instead of what is let out then: for a place that cuts it to the instant itself
 */
export async function scriptFor(
  place: ExchangeReads,
  student: Student,
  sitting: Sitting,
  now: number,
  shows?: Shows,
): Promise<ResultReply> {
  const release = await place.releaseOf(student.id, sitting.id);
  const letOut = release && letOutAt(release, now);
  if (release?.packet && letOut) return limitedScript(release.packet, letOut.shows, letOut.at);
  const { attempts, terms } = await attemptsAndTermsOf(place, sitting, student, now);
  const shown = shows
    ? { shows, at: new Date(now).toISOString() }
    : letOutFor(release, sitting, attempts, terms, now);
  const paper = await paperSatBy(place, sitting, attempts);
  if (!shown || !paper) return null;
  const repairs = await place.repairsOf(sitting.id);
  const questions = scoredQuestions(paper, repairs);
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
    repairs,
    firstName: student.givenName,
    scale: isShown(shown.shows, 'grade') ? await place.gradesOf(sitting.id) : null,
    ...(ofClass(shown.shows) && { classTotals: await place.classTotals(sitting, now) }),
    unfinished: release?.unfinished ?? [],
  };
  return scriptPacket(source, shown.shows);
}

const ofClass = (shows: Shows) => isShown(shows, 'figures') || isShown(shows, 'place');

/** The paper a sitting is scored with; before the first student starts, the version of a try-out. */
async function paperSatBy(place: ExchangeReads, sitting: Sitting, attempts: readonly Attempt[]) {
  const version = lastAttempt(attempts)?.paperVersion;
  return sitting.paperVersion === null && version !== undefined
    ? place.paperVersion(sitting.paperId, version)
    : place.paperOf(sitting);
}
