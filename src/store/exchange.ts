import { kindOf } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { paperPacket } from '@/core/formats/packet/paper';
import { scriptPacket } from '@/core/handback/script';
import type { Student } from '@/core/model/people';
import type { PaperVersion } from '@/core/model/paper';
import { drawnQuestions, givenCount } from '@/core/model/parts';
import type { Answers, Attempt, Sitting } from '@/core/model/sitting';
import { startDecision } from '@/core/running/startAttempt';
import { countingAttempt, lastAttempt } from '@/core/running/counting';
import { attemptState, deadlineOf, type Terms } from '@/core/running/terms';
import { scoreAttempt } from '@/core/scoring/scoreAttempt';
import { readyToSit } from '@/core/scoring/paperFindings';
import type { AttemptStatus, Greeting, HomeSitting, ResultReply, StartReply } from '@/carriers/Carrier';
import { dropStandings } from './command';
import {
  keepAttempt,
  standingOfStudent,
  statusOf,
  stillTaken,
  studentWith,
  withAttempt,
} from './exchangePlace';
import { newId } from './ids';
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
  return { joinCode: student.joinCode, familyName, givenName, groups };
}

export async function home(joinCode: string, now: number): Promise<HomeSitting[]> {
  const student = await studentWith(joinCode);
  if (!student) return [];
  const ofGroups = await desk.sittings.where('groupIds').anyOf(student.groupIds).distinct().toArray();
  const sat = await desk.attempts.where('studentId').equals(student.id).toArray();
  const others = sat
    .map((attempt) => attempt.sittingId)
    .filter((id) => !ofGroups.some((sitting) => sitting.id === id));
  const left = (await desk.sittings.bulkGet([...new Set(others)])).filter((sitting) => sitting !== undefined);
  const rows = await Promise.all([...ofGroups, ...left].map((sitting) => homeSitting(sitting, student, now)));
  return rows.sort((a, b) => b.opensAt.localeCompare(a.opensAt));
}

export async function homeSitting(sitting: Sitting, student: Student, now: number): Promise<HomeSitting> {
  const { attempts, terms } = await standingOfStudent(sitting, student, now);
  const decision = startDecision(attempts, terms, now);
  const last = lastAttempt(attempts);
  const release = await desk.releases.get([sitting.id, student.id]);
  const paper = await paperOf(sitting);
  return {
    sittingId: sitting.id,
    title: sitting.title,
    instructions: decision.outcome === 'refused' ? '' : (paper?.instructions ?? ''),
    questions: paper ? givenCount(paper) : 0,
    opensAt: new Date(terms.opensAt).toISOString(),
    closesAt: terms.closesAt === null ? null : new Date(terms.closesAt + terms.extraMs).toISOString(),
    timeLimitMs: terms.timeLimitMs === null ? null : terms.timeLimitMs + terms.extraMs,
    codeAsked: sitting.accessCode !== '',
    may: decision.outcome === 'refused' ? decision.why : decision.outcome === 'new' ? 'start' : 'resume',
    state: last ? attemptState(last, terms, now) : 'notStarted',
    handedBack: release !== undefined,
  };
}

export async function start(
  joinCode: string,
  sittingId: string,
  accessCode: string,
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
      const events = [...decision.attempt.events, { kind: 'cameBack' as const, at }];
      return started(sitting, { ...decision.attempt, events, lastSeenAt: at }, terms, now);
    }
    if (!sitting.groupIds.some((id) => student.groupIds.includes(id)))
      return { outcome: 'refused', why: 'unknown' };
    if (sitting.accessCode && accessCode.trim().toLowerCase() !== sitting.accessCode.trim().toLowerCase())
      return { outcome: 'refused', why: 'wrongCode' };
    const version = await versionToSit(sitting, at);
    if (!version) return { outcome: 'refused', why: 'notReady' };
    return started(sitting, newAttempt(sitting, student, decision.number, version, at), terms, now);
  });
}

/** The version students sit, frozen when the first of them starts. Null: the paper cannot be sat as it stands. */
async function versionToSit(sitting: Sitting, at: string): Promise<PaperVersion | null> {
  if (sitting.paperVersion !== null)
    return (await desk.paperVersions.get([sitting.paperId, sitting.paperVersion])) ?? null;
  const paper = await desk.papers.get(sitting.paperId);
  if (!paper || !readyToSit(paper)) return null;
  const frozen = await freezePaper(
    { add: async (table, row) => void (await desk.table(table).add(row)) },
    paper,
    at,
  );
  await desk.sittings.update(sitting.id, { paperVersion: frozen.version });
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
    questionIds: itemsOf(drawnQuestions(paper, id)).map((question) => question.id),
    answers: {},
    comeBack: [],
    startedAt: at,
    lastSeenAt: at,
    handedInAt: null,
    collectedAt: null,
    events: [{ kind: 'started', at }],
  };
}

async function started(sitting: Sitting, attempt: Attempt, terms: Terms, now: number): Promise<StartReply> {
  const paper = await desk.paperVersions.get([sitting.paperId, attempt.paperVersion]);
  if (!paper) return { outcome: 'refused', why: 'unknown' };
  await keepAttempt(attempt);
  return { outcome: 'started', packet: paperPacket(paper, attempt), status: statusOf(attempt, terms, now) };
}

/** Takes answers over as they are typed. Those that come after time is up are not taken, and the reply says so. */
export async function handOver(
  joinCode: string,
  attemptId: string,
  answers: Answers,
  comeBack: string[] | null,
  now: number,
): Promise<AttemptStatus | null> {
  return withAttempt(joinCode, attemptId, now, async (attempt, terms) => {
    if (!stillTaken(attempt, terms, now)) return attempt;
    const at = new Date(now).toISOString();
    const changed: Attempt = {
      ...attempt,
      answers: { ...attempt.answers, ...(await validAnswers(attempt, answers, now)) },
      comeBack: (comeBack ?? attempt.comeBack).filter((id) => attempt.questionIds.includes(id)),
      lastSeenAt: at,
    };
    await keepAttempt(changed);
    return changed;
  });
}

export async function handIn(
  joinCode: string,
  attemptId: string,
  now: number,
): Promise<AttemptStatus | null> {
  return withAttempt(joinCode, attemptId, now, async (attempt, terms) => {
    if (!stillTaken(attempt, terms, now)) return attempt;
    const deadline = deadlineOf(attempt, terms);
    const at = new Date(deadline === null ? now : Math.min(now, deadline)).toISOString();
    const changed: Attempt = {
      ...attempt,
      handedInAt: at,
      events: [...attempt.events, { kind: 'handedIn', at }],
    };
    await keepAttempt(changed);
    return changed;
  });
}

/** What the student may see of the result; null while nothing is let out. Looking at it is noted. */
export async function result(joinCode: string, sittingId: string, now: number): Promise<ResultReply> {
  const student = await studentWith(joinCode);
  const sitting = await desk.sittings.get(sittingId);
  if (!student || !sitting) return null;
  const release = await desk.releases.get([sittingId, student.id]);
  const { attempts, terms } = await standingOfStudent(sitting, student, now);
  const paper = await paperOf(sitting);
  if (!release || !paper) return null;
  const questions = itemsOf(paper.questions);
  const allMarks = await desk.marks
    .where('attemptId')
    .anyOf(attempts.map((each) => each.id))
    .toArray();
  const marksOf = (attempt: Attempt) => allMarks.filter((mark) => mark.attemptId === attempt.id);
  const attempt = countingAttempt(
    attempts,
    sitting,
    terms,
    now,
    (each) => scoreAttempt(questions, each, marksOf(each)).total,
  );
  if (!attempt) return null;
  await desk.releases.update([sittingId, student.id], {
    openedAt: [...release.openedAt, new Date(now).toISOString()],
  });
  await dropStandings(desk, sittingId);
  const { title } = sitting;
  const source = {
    sittingId,
    title,
    questions,
    attempt,
    marks: marksOf(attempt),
    releasedAt: release.releasedAt,
  };
  return scriptPacket(source, release.shows);
}

/** The answers that belong to this attempt and are of the right shape for their question. */
async function validAnswers(attempt: Attempt, answers: Answers, now: number): Promise<Answers> {
  const sitting = await desk.sittings.get(attempt.sittingId);
  const paper = sitting && (await desk.paperVersions.get([sitting.paperId, attempt.paperVersion]));
  const at = new Date(now).toISOString();
  const valid: Answers = {};
  for (const question of itemsOf(paper?.questions ?? [])) {
    const answer = answers[question.id];
    if (!answer || !attempt.questionIds.includes(question.id)) continue;
    const response = kindOf(question).responseSchema.safeParse(answer.response);
    if (response.success) valid[question.id] = { response: response.data, at };
  }
  return valid;
}
