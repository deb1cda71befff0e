import type { AskRequest, Greeting, HomeSitting } from '@/carriers/Carrier';
import { namesFrom } from '@/core/formats/csv/studentRows';
import { isGuest, Student } from '@/core/model/people';
import { givenCount } from '@/core/model/parts';
import { ExceptionRequest, type Sitting } from '@/core/model/sitting';
import { lastAttempt } from '@/core/running/counting';
import { startDecision, type StartDecision } from '@/core/running/startAttempt';
import { attemptState, termsFor } from '@/core/running/terms';
import { isListed, plainCode, standingOfStudent, studentWith } from './exchangePlace';
import { shownAfter } from './exchangeResult';
import { newId, newJoinCode } from './ids';
import { paperOf } from './queries';
import { desk } from './tables';

/**
 * The teacher's end of a carrier: what the desk answers when a student's side asks. Every reply is built from
 * packets of core, which hold no key. Requests are checked here as if they came from outside.
 */

export async function greet(joinCode: string): Promise<Greeting | null> {
  const student = await studentWith(joinCode);
  if (!student) return null;
  const groups = (await desk.groups.bulkGet(student.groupIds)).flatMap((group) => group?.name ?? []);
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
export async function comeAsGuest(name: string, accessCode: string, now: number): Promise<Greeting | null> {
  const code = plainCode(accessCode);
  const typed = name.replace(/\s+/g, ' ').trim();
  if (!code || !typed || typed.length > 200) return null;
  return desk.transaction('rw', desk.tables, async () => {
    const open = (await desk.sittings.toArray()).filter(
      (sitting) =>
        sitting.guests === true &&
        plainCode(sitting.accessCode) === code &&
        termsFor({ role: 'guest' }, sitting, [], now).start === 'open',
    );
    const sitting = open.sort((a, b) => b.createdAt.localeCompare(a.createdAt))[0];
    if (!sitting) return null;
    const students = await desk.students.toArray();
    if (students.filter((each) => each.onlySittingId === sitting.id).length >= mostGuests) return null;
    const student = Student.parse({
      id: newId(),
      ...namesFrom(typed),
      number: '',
      email: '',
      joinCode: newJoinCode(new Set(students.map((each) => each.joinCode))),
      groupIds: [],
      role: 'guest',
      onlySittingId: sitting.id,
    } satisfies Student);
    await desk.students.add(student);
    return greet(student.joinCode);
  });
}

export async function home(joinCode: string, now: number): Promise<HomeSitting[]> {
  const student = await studentWith(joinCode);
  if (!student) return [];
  const ofGroups = await sittingsFor(student);
  const sat = await desk.attempts.where('studentId').equals(student.id).toArray();
  const others = sat
    .map((attempt) => attempt.sittingId)
    .filter((id) => !ofGroups.some((sitting) => sitting.id === id));
  const left = (await desk.sittings.bulkGet([...new Set(others)])).filter((sitting) => sitting !== undefined);
  const rows = await Promise.all([...ofGroups, ...left].map((sitting) => homeSitting(sitting, student, now)));
  return rows.sort((a, b) => b.opensAt.localeCompare(a.opensAt));
}

/** The sittings a student is on the list of. */
async function sittingsFor(student: Student): Promise<Sitting[]> {
  if (student.onlySittingId !== undefined)
    return (await desk.sittings.bulkGet([student.onlySittingId])).filter((sitting) => sitting !== undefined);
  if (student.archivedAt !== undefined) return [];
  return desk.sittings.where('groupIds').anyOf(student.groupIds).distinct().toArray();
}

export async function homeSitting(sitting: Sitting, student: Student, now: number): Promise<HomeSitting> {
  const { attempts, terms } = await standingOfStudent(sitting, student, now);
  const decided = startDecision(attempts, terms, now);
  // Whoever left the list goes on with what was begun, and begins nothing new.
  const decision: StartDecision =
    decided.outcome === 'new' && !isListed(sitting, student)
      ? { outcome: 'refused', why: 'closedToStarts' }
      : decided;
  const last = lastAttempt(attempts);
  const release = await desk.releases.get([sitting.id, student.id]);
  const paper = await paperOf(sitting);
  const requests = await desk.requests.where({ sittingId: sitting.id, studentId: student.id }).toArray();
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
    handedBack: release !== undefined || shownAfter(sitting, attempts, terms, now) !== null,
    practice: sitting.practice !== undefined,
    oneByOne: sitting.oneByOne === true,
    noBack: sitting.oneByOne === true && sitting.noBack === true,
    requests: requests
      .sort((a, b) => a.at.localeCompare(b.at))
      .map(({ asks, words, at, answer }) => ({ asks, words, at, answer })),
  };
}

/** Takes a request in; one waits at a time. */
export async function ask(
  joinCode: string,
  sittingId: string,
  { asks, words }: AskRequest,
  now: number,
): Promise<boolean> {
  return desk.transaction('rw', desk.tables, async () => {
    const student = await studentWith(joinCode);
    const sitting = await desk.sittings.get(sittingId);
    if (!student || !sitting || !words.trim()) return false;
    const place = { sittingId, studentId: student.id };
    const { attempts } = await standingOfStudent(sitting, student, now);
    const before = await desk.requests.where(place).toArray();
    if (!isListed(sitting, student) && attempts.length === 0) return false;
    if (before.some(({ answer }) => answer === null) || before.length >= 20) return false;
    const at = new Date(now).toISOString();
    await desk.requests.add(
      ExceptionRequest.parse({ id: newId(), ...place, asks, words: words.trim(), at, answer: null }),
    );
    return true;
  });
}
