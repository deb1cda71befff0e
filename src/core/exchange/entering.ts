import { namesFrom } from '../formats/csv/studentRows';
import type { Student } from '../model/people';
import { isGuest } from '../model/names';
import { givenCount } from '../model/parts';
import { ExceptionRequest, type Attempt, type Sitting } from '../model/sitting';
import { lastAttempt } from '../attempts/counting';
import { startDecision, type StartDecision } from '../attempts/startAttempt';
import { attemptState, deadlineOf, termsFor, type Terms } from '../attempts/terms';
import type { AskRequest, Greeting, HomeSitting } from './messages';
import type { ExchangeRepository } from './repository';
import { letOutFor, scriptNow } from './result';
import { isListed, plainCode, sameCode, attemptsAndTermsOf, studentWith } from './attemptOf';

/**
 * The teacher's end of a carrier: what is answered when a student's side asks. Every reply is built from packets,
 * which hold no key.
 */

export async function greet(place: ExchangeRepository, joinCode: string): Promise<Greeting | null> {
  const student = await studentWith(place, joinCode);
  return student ? greetingOf(place, student) : null;
}

async function greetingOf(place: ExchangeRepository, student: Student): Promise<Greeting> {
  const groups = (await place.groups(student.groupIds)).map(({ name }) => name);
  const { familyName, givenName } = student;
  return {
    joinCode: student.joinCode,
    familyName,
    givenName,
    groups,
    ...(isGuest(student) && { guest: true }),
  };
}

/** More guests than that are not taken into one sitting: a code that went around must not fill the desk. */
const mostGuests = 500;

/** Takes someone in who is on no list: the access code says to which sitting. */
export async function comeAsGuest(
  place: ExchangeRepository,
  name: string,
  accessCode: string,
  now: number,
): Promise<Greeting | null> {
  const code = plainCode(accessCode);
  const typed = name.replace(/\s+/g, ' ').trim();
  if (!code || !typed || typed.length > 200) return null;
  const open = (await place.guestSittings()).filter(
    (sitting) =>
      sitting.guests === true &&
      sameCode(sitting.accessCode, code) &&
      termsFor({ role: 'guest' }, sitting, [], now).start === 'open',
  );
  const sitting = open.sort((a, b) => b.createdAt.localeCompare(a.createdAt))[0];
  if (!sitting) return null;
  // One after the other, so that the bound on guests holds.
  const guest = await place.within(`guests of ${sitting.id}`, 'guest', async (keep) => {
    if ((await place.guestsOf(sitting.id)) >= mostGuests) return null;
    return keep.guest({
      id: place.newId(),
      // What has a comma in it may be anything: it stays as it was typed.
      ...(typed.includes(',') ? { familyName: typed, givenName: '' } : namesFrom(typed)),
      number: '',
      email: '',
      groupIds: [],
      role: 'guest',
      onlySittingId: sitting.id,
    });
  });
  return guest && greetingOf(place, guest);
}

export async function home(place: ExchangeRepository, joinCode: string, now: number): Promise<HomeSitting[]> {
  const student = await studentWith(place, joinCode);
  if (!student) return [];
  const ofGroups = await sittingsFor(place, student);
  const others = (await place.attemptsOf(student.id))
    .map((attempt) => attempt.sittingId)
    .filter((id) => !ofGroups.some((sitting) => sitting.id === id));
  const left = await sittingsWith(place, [...new Set(others)]);
  const rows = await Promise.all(
    [...ofGroups, ...left].map((sitting) => homeSitting(place, sitting, student, now)),
  );
  return rows.sort((a, b) => b.opensAt.localeCompare(a.opensAt));
}

/** The sittings a student is on the list of. */
async function sittingsFor(place: ExchangeRepository, student: Student): Promise<Sitting[]> {
  if (student.onlySittingId !== undefined) return sittingsWith(place, [student.onlySittingId]);
  return student.archivedAt === undefined ? place.sittingsOf(student.groupIds) : [];
}

async function sittingsWith(place: ExchangeRepository, ids: readonly string[]): Promise<Sitting[]> {
  const found = await Promise.all(ids.map((id) => place.sitting(id)));
  return found.filter((sitting) => sitting !== undefined);
}

export async function homeSitting(
  place: ExchangeRepository,
  sitting: Sitting,
  student: Student,
  now: number,
): Promise<HomeSitting> {
  const { attempts, terms } = await attemptsAndTermsOf(place, sitting, student, now);
  const decided = startDecision(attempts, terms, now);
  // Whoever left the list goes on with what was begun, and begins nothing new.
  const decision: StartDecision =
    decided.outcome === 'new' && !isListed(sitting, student)
      ? { outcome: 'refused', why: 'closedToStarts' }
      : decided;
  const last = lastAttempt(attempts);
  const release = await place.releaseOf(student.id, sitting.id);
  const paper = await place.paperOf(sitting);
  const requests = await place.requestsOf(student.id, sitting.id);
  return {
    sittingId: sitting.id,
    title: sitting.title,
    instructions: decision.outcome === 'refused' ? '' : (paper?.instructions ?? ''),
    questions: paper ? givenCount(paper) : 0,
    opensAt: new Date(terms.opensAt).toISOString(),
    closesAt: terms.closesAt === null ? null : new Date(terms.closesAt + terms.extraMs).toISOString(),
    timeLimitMs: terms.timeLimitMs === null ? null : terms.timeLimitMs + terms.extraMs,
    // Guests gave it to come in; the teacher's try-out needs none.
    codeAsked: sitting.accessCode !== '' && student.onlySittingId === undefined,
    may: decision.outcome === 'refused' ? decision.why : decision.outcome === 'new' ? 'start' : 'resume',
    state: last ? attemptState(last, terms, now) : 'notStarted',
    ...leftOf(last, terms, now),
    handedBack: letOutFor(release, sitting, attempts, terms, now) !== null,
    practice: sitting.practice !== undefined,
    ...lateOf(attempts),
    oneByOne: sitting.oneByOne === true,
    noBack: sitting.oneByOne === true && sitting.noBack === true,
    requests: requests
      .filter(({ asks }) => asks !== 'mark')
      .sort((a, b) => a.at.localeCompare(b.at))
      .map(({ asks, words, at, answer }) => ({ asks, words, at, answer })),
  };
}

/** How long the attempt that runs goes on; nothing where it has no end, or none runs. */
function leftOf(last: Attempt | undefined, terms: Terms, now: number): Pick<HomeSitting, 'leftMs'> {
  if (!last || attemptState(last, terms, now) !== 'working') return {};
  const deadline = deadlineOf(last, terms);
  return deadline === null ? {} : { leftMs: Math.max(0, deadline - now) };
}

/** What became of answers that came after the end; nothing where there are none. */
function lateOf(attempts: readonly Attempt[]): Pick<HomeSitting, 'late'> {
  const all = attempts.flatMap(({ late = [] }) => late);
  if (all.length === 0) return {};
  const having = (counts: boolean | null) =>
    all.filter(({ decision }) => (decision?.counts ?? null) === counts).length;
  return { late: { waits: having(null), counts: having(true), not: having(false) } };
}

/** Takes a request in; one waits at a time. */
export async function ask(
  place: ExchangeRepository,
  joinCode: string,
  sittingId: string,
  { asks, words, questionId }: AskRequest,
  now: number,
): Promise<boolean> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting || !words.trim()) return false;
  if (asks === 'mark' && !(await mayAskNow(place, student, sitting, questionId, now))) return false;
  return place.within(student.id, 'request', async (keep) => {
    const attempts = await place.attemptsOf(student.id, sittingId);
    const all = await place.requestsOf(student.id, sittingId);
    // About marks, one waits for each question.
    const before = all.filter(
      (each) =>
        (each.asks === 'mark') === (asks === 'mark') &&
        each.questionId === (asks === 'mark' ? questionId : undefined),
    );
    if (!isListed(sitting, student) && attempts.length === 0) return false;
    if (before.some(({ answer }) => answer === null) || before.length >= 20) return false;
    await keep.request(
      ExceptionRequest.parse({
        id: place.newId(),
        sittingId,
        studentId: student.id,
        asks,
        ...(asks === 'mark' && { questionId }),
        words: words.trim(),
        at: new Date(now).toISOString(),
        answer: null,
      } satisfies ExceptionRequest),
    );
    return true;
  });
}

/** Whether the mark of a question may be asked about now. */
async function mayAskNow(
  place: ExchangeRepository,
  student: Student,
  sitting: Sitting,
  questionId: string | undefined,
  now: number,
): Promise<boolean> {
  const script = await scriptNow(place, student, sitting, now);
  return script?.questions.some(({ question, mayAsk }) => question.id === questionId && mayAsk) ?? false;
}
