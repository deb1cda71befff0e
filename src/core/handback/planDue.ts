import type { PlanStage, ReleasePlan } from '../model/release';
import { isIn, type Seat } from '../seats/seats';
import { lastMaySit, maySit } from './lastMaySit';
import { readinessOf } from './readiness';

/** What is to be done because of a plan; null: nothing. */
export interface PlanDue {
  plan: ReleasePlan;
  /** Whose results are handed back by it now. */
  handBack: string[];
}

/** The same paper in other sittings: when the last may no longer sit it there; Infinity: never, null: nobody. */
export type LastElsewhere = number | null;

/**
 * Brings a plan up to how its sitting stands: when its stages begin that wait for something, what is not marked for all, and who
 * has become ready. An instant that has passed stays: what was seen is not taken away because somebody may sit after all.
 *
 * @returns null where nothing is to be changed
 */
export function planDue(
  plan: ReleasePlan,
  seats: readonly Seat[],
  now: number,
  elsewhere: LastElsewhere = null,
): PlanDue | null {
  const times = { sat: satAt(seats, now, elsewhere), marked: markedAt(seats, now) };
  const kept = (stages: readonly PlanStage[]) => stages.map((stage) => timed(stage, times, now));
  const unfinished = plan.whole ? notMarkedForAll(seats) : [];
  const next: ReleasePlan = {
    ...plan,
    stages: kept(plan.stages),
    ...(plan.draft && { draft: kept(plan.draft) }),
    ...(unfinished.length > 0 || plan.unfinished ? { unfinished } : {}),
  };
  const handBack = plan.follows
    ? seats.filter((seat) => !seat.release && readinessOf(seat).ready).map(({ student }) => student.id)
    : [];
  const same = JSON.stringify(next) === JSON.stringify(plan);
  return same && handBack.length === 0 ? null : { plan: next, handBack };
}

/** When stages begin that wait for something; null: not known. */
interface Times {
  sat: string | null;
  marked: string | null;
}

function timed(stage: PlanStage, times: Times, now: number): PlanStage {
  if (stage.starts !== 'sat' && stage.starts !== 'marked') return stage;
  if (stage.at !== null && Date.parse(stage.at) <= now) return stage;
  return { ...stage, at: times[stage.starts] };
}

/** When nobody may sit any more, here or elsewhere; null: never, or nobody was ever to. */
function satAt(seats: readonly Seat[], now: number, elsewhere: LastElsewhere): string | null {
  const here = lastMaySit(seats, now);
  if (here === null) return null;
  const last = Math.max(here, elsewhere ?? -Infinity);
  return Number.isFinite(last) ? new Date(last).toISOString() : null;
}

/** Now, where nobody may still sit and every script that is in is marked whole. */
function markedAt(seats: readonly Seat[], now: number): string | null {
  const ins = seats.filter(isIn);
  const all = ins.length > 0 && !seats.some(maySit) && ins.every((seat) => seat.scorecard?.final === true);
  return all ? new Date(now).toISOString() : null;
}

/** The questions of which some answer that is in still waits, has no key or was set aside. */
export function notMarkedForAll(seats: readonly Seat[]): string[] {
  const open = new Set<string>();
  for (const seat of seats)
    if (isIn(seat))
      for (const { questionId, points, aside } of seat.scorecard?.awards ?? [])
        if (points === null || aside) open.add(questionId);
  return [...open].sort();
}
