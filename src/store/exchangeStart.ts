import type { StartReply } from '@/carriers/Carrier';
import { itemsOf } from '@/core/kinds/items';
import { paperPacket } from '@/core/formats/packet/paper';
import type { Student } from '@/core/model/people';
import type { PaperVersion } from '@/core/model/paper';
import { allShuffled, drawnQuestions } from '@/core/model/parts';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { startDecision } from '@/core/running/startAttempt';
import { isAside, settled, type Terms } from '@/core/running/terms';
import { withEvents } from '@/core/running/watching';
import { readyToSit } from '@/core/scoring/paperFindings';
import { isListed, keepAttempt, plainCode, standingOfStudent, statusOf, studentWith } from './exchangePlace';
import { newId } from './ids';
import { freezePaper } from './papers';
import { desk } from './tables';

/** Begins an attempt, or goes on with the one that runs; from then on it is in the tab that asks. */
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
