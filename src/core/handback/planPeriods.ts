import { letOutAt, showsSame, type ReleaseStage, type Shows } from '../model/release';

/** A time in which the same is seen of a result. */
export interface PlanPeriod {
  /** ISO; null: from the handing back on. */
  from: string | null;
  /** ISO; null: without an end. */
  until: string | null;
  /** Null: nothing. */
  shows: Shows | null;
}

/** What is seen of a result when, by its stages: in order, without gaps, each differing from the one before. */
export function planPeriods(stages: readonly ReleaseStage[], releasedAt: string): PlanPeriod[] {
  const start = Date.parse(releasedAt);
  const turns = stages
    .flatMap(({ from, until }) => [from, until])
    .filter((at) => at !== null)
    .map((at) => Date.parse(at))
    .filter((at) => at > start);
  const begins = [start, ...[...new Set(turns)].sort((a, b) => a - b)];
  const periods: PlanPeriod[] = [];
  for (const begin of begins) {
    const shows = letOutAt({ stages, releasedAt }, begin)?.shows ?? null;
    const before = periods.at(-1);
    if (before && showsSame(before.shows, shows)) continue;
    const from = begin === start ? null : new Date(begin).toISOString();
    if (before) before.until = from;
    periods.push({ from, until: null, shows });
  }
  return periods;
}

/** The period an instant falls into. @param now ms since 1970, not before the handing back */
export const periodAt = (periods: readonly PlanPeriod[], now: number): PlanPeriod | undefined =>
  periods.findLast(({ from }) => from === null || Date.parse(from) <= now);
