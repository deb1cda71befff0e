import { itemsOf } from '@/core/kinds/items';
import { paperPacket } from '@/core/formats/packet/paper';
import { scriptPacket } from '@/core/handback/script';
import { isGuest, Student } from '@/core/model/people';
import { namesFrom } from '@/core/formats/csv/studentRows';
import type { PaperVersion } from '@/core/model/paper';
import { allShuffled, drawnQuestions, givenCount } from '@/core/model/parts';
import { ExceptionRequest, type Attempt, type Shows, type Sitting } from '@/core/model/sitting';
import { startDecision, type StartDecision } from '@/core/running/startAttempt';
import { countingAttempt, lastAttempt } from '@/core/running/counting';
import { attemptState, endOf, isAside, settled, termsFor, type Terms } from '@/core/running/terms';
import { withEvents } from '@/core/running/watching';
import { jointScorecard, scoreAttempt } from '@/core/scoring/scoreAttempt';
import { readyToSit } from '@/core/scoring/paperFindings';
import type { AskRequest, Greeting, HomeSitting, ResultReply, StartReply } from '@/carriers/Carrier';
import { dropStandings } from './command';
import { keepAttempt, standingOfStudent, statusOf, studentWith } from './exchangePlace';
import { newId, newJoinCode } from './ids';
import { freezePaper } from './papers';
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

const plainCode = (code: string) => code.trim().toLowerCase();

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

const isListed = (sitting: Sitting, student: Student) =>
  student.onlySittingId === sitting.id ||
  (student.archivedAt === undefined && sitting.groupIds.some((id) => student.groupIds.includes(id)));

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

export async function start(
  joinCode: string,
  sittingId: string,
  accessCode: string,
  tabId: string,
  now: number,
): Promise<StartReply> {
  const student = await studentWith(joinCode);
  const sitting = await desk.sittings.get(sittingId);
  if (!student || !sitting) return { outcome: 'refused', why: 'unknown' };
  return desk.transaction('rw', desk.tables, async () => {
    const { attempts, terms } = await standingOfStudent(sitting, student, now);
    const decision = startDecision(attempts, terms, now);
    if (decision.outcome === 'refused') return decision;
    const at = new Date(now).toISOString();
    if (decision.outcome === 'resume') {
      const back = withEvents(decision.attempt, [{ kind: 'cameBack', at }]);
      return started(sitting, { ...back, lastSeenAt: at, tab: { id: tabId, since: at } }, terms, now);
    }
    if (!isListed(sitting, student)) return { outcome: 'refused', why: 'unknown' };
    const codeAsked = sitting.accessCode && student.onlySittingId === undefined;
    if (codeAsked && plainCode(accessCode) !== plainCode(sitting.accessCode))
      return { outcome: 'refused', why: 'wrongCode' };
    const version = await versionToSit(sitting, student, at);
    if (!version) return { outcome: 'refused', why: 'notReady' };
    for (const earlier of attempts.filter((each) => !isAside(each))) {
      const ended = settled(earlier, terms, now);
      if (ended !== earlier) await keepAttempt(ended);
    }
    const attempt = newAttempt(sitting, student, decision.number, version, at);
    return started(sitting, { ...attempt, tab: { id: tabId, since: at } }, terms, now);
  });
}

/**
 * The version students sit, frozen when the first of them starts; a try-out of the teacher leaves the sitting to follow
 * its paper. Null: the paper cannot be sat as it stands.
 */
async function versionToSit(sitting: Sitting, student: Student, at: string): Promise<PaperVersion | null> {
  if (sitting.paperVersion !== null)
    return (await desk.paperVersions.get([sitting.paperId, sitting.paperVersion])) ?? null;
  const paper = await desk.papers.get(sitting.paperId);
  if (!paper || !readyToSit(paper)) return null;
  const frozen = await freezePaper(
    { add: async (table, row) => void (await desk.table(table).add(row)) },
    paper,
    at,
  );
  if (student.role !== 'tryOut') await desk.sittings.update(sitting.id, { paperVersion: frozen.version });
  return frozen;
}

function newAttempt(
  sitting: Sitting,
  student: Student,
  number: number,
  paper: PaperVersion,
  at: string,
): Attempt {
  const id = newId();
  return {
    id,
    sittingId: sitting.id,
    studentId: student.id,
    number,
    paperVersion: paper.version,
    questionIds: itemsOf(drawnQuestions(sitting.shuffle ? allShuffled(paper) : paper, id)).map(
      (question) => question.id,
    ),
    answers: {},
    comeBack: [],
    startedAt: at,
    lastSeenAt: at,
    handedInAt: null,
    collectedAt: null,
    events: [{ kind: 'started', at }],
    ...(sitting.practice && { practice: { lossPerTry: sitting.practice.lossPerTry, records: {} } }),
  };
}

async function started(sitting: Sitting, attempt: Attempt, terms: Terms, now: number): Promise<StartReply> {
  const paper = await desk.paperVersions.get([sitting.paperId, attempt.paperVersion]);
  if (!paper) return { outcome: 'refused', why: 'unknown' };
  await keepAttempt(attempt);
  return {
    outcome: 'started',
    packet: paperPacket(paper, attempt, sitting),
    status: statusOf(attempt, terms, now, attempt.tab?.id ?? ''),
  };
}

/** What a student sees straight after handing in, where the sitting says so and nothing was handed back yet. */
function shownAfter(
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
