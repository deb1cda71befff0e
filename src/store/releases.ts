import { sumBy } from 'remeda';
import { done } from '@/words/done';
import { lastMaySit } from '@/core/handback/lastMaySit';
import { planDue, type LastElsewhere } from '@/core/handback/planDue';
import { stillToSit } from '@/core/handback/readiness';
import type { Sitting } from '@/core/model/sitting';
import { Release, ReleasePlan, type PlanStage } from '@/core/model/release';
import { seatsOf, type Seat } from '@/core/seats/seats';
import { runCommand } from './command';
import { sittingRecords } from './queries';
import { desk } from './tables';

/** A plan without stages, for a sitting that has none. */
export const noPlan = (sittingId: string, at: string): ReleasePlan => ({ sittingId, stages: [], at });

/**
 * Lets students see their results by the plan of the sitting. Those who were held back, or had theirs by themselves, follow it
 * from now on.
 *
 * @param plan put in place in the same act
 */
export async function handBack(plan: ReleasePlan, studentIds: readonly string[], now: string) {
  const { sittingId } = plan;
  const said = done.handedBack(studentIds.length);
  return runCommand({ command: 'handBack', said, about: sittingId }, now, async (record) => {
    await record.put('releasePlans', ReleasePlan.parse(plan));
    for (const studentId of studentIds) {
      const before = await desk.releases.get([sittingId, studentId]);
      // What was only held before is handed back now.
      const had = before && before.releasedAt !== before.heldBack?.at;
      const release = { sittingId, studentId, releasedAt: had ? before.releasedAt : now };
      await record.put('releases', Release.parse(release));
    }
  });
}

/** Nothing of these results is seen until they are handed back; also by a plan that hands back by itself. */
export async function holdBack(
  sittingId: string,
  studentIds: readonly string[],
  reason: string,
  now: string,
) {
  const said = done.heldBack(studentIds.length);
  return runCommand({ command: 'holdBack', said, about: sittingId }, now, async (record) => {
    for (const studentId of studentIds) {
      const before = await desk.releases.get([sittingId, studentId]);
      const release = before ?? { sittingId, studentId, releasedAt: now };
      await record.put('releases', Release.parse({ ...release, heldBack: { at: now, reason } }));
    }
  });
}

/** Takes results back. Where a plan hands back by itself they are held, or it would do so again. */
export async function withdrawResults(sittingId: string, studentIds: readonly string[], now: string) {
  const plan = await desk.releasePlans.get(sittingId);
  const said = done.withdrawn(studentIds.length);
  return runCommand({ command: 'withdrawResults', said, about: sittingId }, now, async (record) => {
    for (const studentId of studentIds) {
      const before = plan?.follows ? await desk.releases.get([sittingId, studentId]) : undefined;
      if (before)
        await record.put('releases', { ...before, heldBack: { at: now, reason: done.withdrawnReason } });
      else await record.remove('releases', [sittingId, studentId]);
    }
  });
}

/** @param base as the plan was when it was opened */
export async function changePlan(plan: ReleasePlan, said: string, now: string, base?: ReleasePlan) {
  const name = { command: 'changePlan' as const, said, about: plan.sittingId, joins: said };
  return runCommand(name, now, async (record) => {
    await record.putChanged('releasePlans', ReleasePlan.parse({ ...plan, at: now }), base);
  });
}

/** Lets a plan hold for everyone who has a result: also for those who had theirs shown otherwise. */
export async function holdForAll(plan: ReleasePlan, now: string) {
  const { sittingId } = plan;
  return runCommand({ command: 'handBack', said: done.planHolds, about: sittingId }, now, async (record) => {
    await record.put('releasePlans', ReleasePlan.parse({ ...plan, at: now }));
    for (const { shows, ...release } of await desk.releases.where({ sittingId }).toArray())
      if (shows) await record.put('releases', release);
  });
}

/** Lets a stage begin now that waits for the teacher, for everyone who has a result. */
export async function openStage(sittingId: string, stageId: string, now: string) {
  const said = done.stageOpened;
  return runCommand({ command: 'changePlan', said, about: sittingId }, now, async (record) => {
    const plan = await desk.releasePlans.get(sittingId);
    if (!plan) return;
    const opened = (stage: PlanStage): PlanStage => (stage.id === stageId ? { ...stage, at: now } : stage);
    const draft = plan.draft && { draft: plan.draft.map(opened) };
    await record.put('releasePlans', { ...plan, stages: plan.stages.map(opened), ...draft });
  });
}

/** Brings a plan up to how its sitting stands; nothing where it is. */
export async function followPlan(sittingId: string, seats: readonly Seat[], now: string): Promise<void> {
  const sitting = await desk.sittings.get(sittingId);
  if (!sitting) return;
  const elsewhere = await lastElsewhere(sitting, Date.parse(now));
  const dueNow = async () => {
    const plan = await desk.releasePlans.get(sittingId);
    return plan ? planDue(plan, seats, Date.parse(now), elsewhere) : null;
  };
  const said = done.planFollowed((await dueNow())?.handBack.length ?? 0);
  const name = { command: 'followPlan' as const, said, about: sittingId, lasting: true };
  await runCommand(name, now, async (record) => {
    // Another tab may have done so just now.
    const due = await dueNow();
    if (due) await record.put('releasePlans', due.plan);
    for (const studentId of due?.handBack ?? [])
      if (!(await desk.releases.get([sittingId, studentId])))
        await record.add('releases', Release.parse({ sittingId, studentId, releasedAt: now }));
  });
}

async function seatsElsewhere({ id, paperId }: Sitting, now: number): Promise<Seat[][]> {
  const others = await desk.sittings
    .where({ paperId })
    .filter((sitting) => sitting.id !== id && sitting.rehearsal !== true && sitting.share !== true)
    .toArray();
  const all = await Promise.all(others.map((sitting) => sittingRecords(sitting.id)));
  return all.flatMap((records) => (records ? [seatsOf(records, now)] : []));
}

/** How many students may still sit the paper of a sitting in other sittings of it. */
export async function stillToSitElsewhere(sitting: Sitting, now: number): Promise<number> {
  const all = await seatsElsewhere(sitting, now);
  return sumBy(all, (seats) => stillToSit(seats));
}

/** When the last may no longer sit the paper of a sitting in other sittings of it. */
export async function lastElsewhere(sitting: Sitting, now: number): Promise<LastElsewhere> {
  const lasts = (await seatsElsewhere(sitting, now)).flatMap((seats) => lastMaySit(seats, now) ?? []);
  return lasts.length > 0 ? Math.max(...lasts) : null;
}
