import { CommandFault } from '@/core/model/commandFault';
import { handIn, handOver, start } from '@/core/exchange';
import { itemsOf } from '@/core/kinds/items';
import { Sitting } from '@/core/model/sitting';
import { madeUpClass } from '@/core/rehearsal/people';
import { rehearsalPlan, type RehearsalStep } from '@/core/rehearsal/plan';
import { readyToSit } from '@/core/scoring/paperFindings';
import { dropProgress } from './command';
import { dropOwned } from './owners';
import { deskRepository } from './deskRepository';
import { newId, newJoinCode } from './ids';
import { dropUnusedVersion } from './papers';
import { paperOf } from './queries';
import { desk } from './tables';

/** What a rehearsal is set up with. */
export interface RehearsalWish {
  students: number;
  /** How long the class would be at work. */
  lengthMs: number;
  seed: number;
}

const groupOf = (sittingId: string) => `rehearsal-${sittingId}`;

/**
 * Sets up a rehearsal of a paper: a sitting of its own with a made-up class, apart from everything else on the desk.
 * Not in the log, for it is taken away without trace.
 *
 * @returns the id of the rehearsal's sitting
 */
export async function setUpRehearsal(
  paperId: string,
  manner: Partial<Sitting>,
  { students, lengthMs }: RehearsalWish,
  now: string,
): Promise<string> {
  return desk.transaction('rw', desk.tables, async () => {
    const paper = await desk.papers.get(paperId);
    if (!paper || !readyToSit(paper)) throw new CommandFault('paperNotReady');
    const id = newId();
    const taken = new Set((await desk.students.toArray()).map((student) => student.joinCode));
    const group = {
      id: groupOf(id),
      name: 'The made-up class',
      createdAt: now,
      rehearsal: true,
    };
    const sitting = Sitting.parse({
      ...manner,
      id,
      paperId,
      paperVersion: null,
      title: `Rehearsal: ${paper.title}`.slice(0, 500),
      groupIds: [group.id],
      opensAt: now,
      closesAt: null,
      timeLimitMs: lengthMs * 2,
      accessCode: '',
      closedToStartsAt: null,
      createdAt: now,
      rehearsal: true,
      guests: false,
    });
    await desk.groups.add(group);
    await desk.sittings.add(sitting);
    await desk.students.bulkAdd(madeUpClass(students, group.id, newId, () => newJoinCode(taken)));
    return id;
  });
}

/** Everything a rehearsal plays: who does what when, by join code. */
export async function rehearsalSteps(
  sittingId: string,
  { lengthMs, seed }: Pick<RehearsalWish, 'lengthMs' | 'seed'>,
): Promise<{ steps: RehearsalStep[]; joinCodes: string[] }> {
  const sitting = await desk.sittings.get(sittingId);
  const paper = sitting && (await paperOf(sitting));
  if (!sitting || !paper) throw new CommandFault('rehearsalGone');
  const students = await desk.students.where('groupIds').equals(groupOf(sittingId)).sortBy('number');
  return {
    steps: rehearsalPlan(itemsOf(paper.questions), students.length, lengthMs, seed),
    joinCodes: students.map(({ joinCode }) => joinCode),
  };
}

/** Does one step as a student's side would: through the same exchange, with its checks and its clock. */
export async function playStep(
  sittingId: string,
  joinCode: string,
  step: RehearsalStep,
  attempts: Map<string, string>,
  now: number,
): Promise<void> {
  if (step.does === 'start') {
    const reply = await start(deskRepository, joinCode, sittingId, '', joinCode, now);
    if (reply.outcome === 'started') attempts.set(joinCode, reply.packet.attemptId);
    return;
  }
  const attemptId = attempts.get(joinCode);
  if (attemptId === undefined) return;
  if (step.does === 'handIn') {
    await handIn(deskRepository, joinCode, attemptId, now);
    return;
  }
  const answers =
    step.does === 'answer'
      ? { [step.questionId]: { response: step.response, at: new Date(now).toISOString() } }
      : {};
  const noticed =
    step.does === 'answer'
      ? []
      : [{ kind: step.does === 'leave' ? ('left' as const) : ('returned' as const), agoMs: 0 }];
  await handOver(
    deskRepository,
    joinCode,
    attemptId,
    { answers, comeBack: null, tabId: joinCode, noticed },
    now,
  );
}

/** Takes a rehearsal away without trace: its sitting, class, attempts, marks, and what the log says of it. */
export async function clearRehearsal(sittingId: string): Promise<void> {
  await desk.transaction('rw', desk.tables, async () => {
    const sitting = await desk.sittings.get(sittingId);
    if (!sitting?.rehearsal) throw new CommandFault('notRehearsal');
    const groupId = groupOf(sittingId);
    const ids = new Set((await desk.students.where('groupIds').equals(groupId).primaryKeys()).map(String));
    await dropOwned('sittings', sittingId);
    await desk.students.bulkDelete([...ids]);
    await desk.groups.delete(groupId);
    await desk.sittings.delete(sittingId);
    await dropProgress(desk, sittingId);
    const said = await desk.log
      .filter(({ about }) => about === sittingId || about === groupId || (about !== null && ids.has(about)))
      .primaryKeys();
    await desk.log.bulkDelete(said);
    await desk.logChanges.bulkDelete(said);
    if (sitting.paperVersion !== null) await dropUnusedVersion(sitting.paperId, sitting.paperVersion);
  });
}
