import { itemsOf } from '../kinds/items';
import { paperPacket } from '../formats/packet/paper';
import type { Student } from '../model/people';
import type { PaperVersion } from '../model/paper';
import { allShuffled, drawnQuestions } from '../model/parts';
import type { Attempt, Sitting } from '../model/sitting';
import { startDecision } from '../attempts/startAttempt';
import { isAside, settled, type Terms } from '../attempts/terms';
import { withEvents } from '../attempts/watching';
import type { StartReply } from './messages';
import type { ExchangeKeep, ExchangeRepository } from './repository';
import { isListed, sameCode, attemptsAndTermsOf, statusOf, studentWith } from './attemptOf';

/** Begins an attempt, or goes on with the one that runs; from then on it is in the tab that asks. */
export async function start(
  place: ExchangeRepository,
  joinCode: string,
  sittingId: string,
  accessCode: string,
  tabId: string,
  now: number,
): Promise<StartReply> {
  const student = await studentWith(place, joinCode);
  const sitting = await place.sitting(sittingId);
  if (!student || !sitting) return { outcome: 'refused', why: 'unknown' };
  return place.within(student.id, 'any', async (keep) => {
    const { attempts, terms } = await attemptsAndTermsOf(place, sitting, student, now);
    const decision = startDecision(attempts, terms, now);
    if (decision.outcome === 'refused') return decision;
    const at = new Date(now).toISOString();
    if (decision.outcome === 'resume') {
      const back = withEvents(decision.attempt, [{ kind: 'cameBack', at }]);
      const here = { ...back, lastSeenAt: at, tab: { id: tabId, since: at } };
      const version = await place.paperVersion(sitting.paperId, here.paperVersion);
      if (!version) return { outcome: 'refused', why: 'unknown' };
      await keep.attempt(here);
      place.seen(here, now);
      return started(version, sitting, here, terms, now);
    }
    if (!isListed(sitting, student)) return { outcome: 'refused', why: 'unknown' };
    const codeAsked = sitting.accessCode && student.onlySittingId === undefined;
    if (codeAsked && !sameCode(accessCode, sitting.accessCode))
      return { outcome: 'refused', why: 'wrongCode' };
    const version = await versionToSit(place, keep, sitting, student, at);
    if (!version) return { outcome: 'refused', why: 'notReady' };
    for (const earlier of attempts.filter((each) => !isAside(each))) {
      const ended = settled(earlier, terms, now);
      if (ended !== earlier) await keep.attempt(ended);
    }
    const fresh = newAttempt(place.newId(), sitting, student, decision.number, version, at);
    const attempt = { ...fresh, tab: { id: tabId, since: at } };
    await keep.attempt(attempt);
    place.seen(attempt, now);
    return started(version, sitting, attempt, terms, now);
  });
}

/**
 * The version students sit, frozen when the first of them starts; a try-out of the teacher leaves the sitting to follow
 * its paper. Null: the paper cannot be sat as it stands.
 */
async function versionToSit(
  place: ExchangeRepository,
  keep: ExchangeKeep,
  sitting: Sitting,
  student: Student,
  at: string,
): Promise<PaperVersion | null> {
  if (sitting.paperVersion !== null)
    return (await place.paperVersion(sitting.paperId, sitting.paperVersion)) ?? null;
  return keep.freeze(sitting, at, student.role !== 'tryOut');
}

/** An attempt as it begins: with its questions drawn, and nothing answered. */
export function newAttempt(
  id: string,
  sitting: Sitting,
  student: Student,
  number: number,
  paper: PaperVersion,
  at: string,
): Attempt {
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

function started(
  paper: PaperVersion,
  sitting: Sitting,
  attempt: Attempt,
  terms: Terms,
  now: number,
): StartReply {
  return {
    outcome: 'started',
    packet: paperPacket(paper, attempt, sitting),
    status: statusOf(attempt, terms, now, attempt.tab?.id ?? ''),
  };
}
