import { timedStage, type PlanStage, type StageStart } from '../model/release';

/** Where something begins or ends in the picture of a plan. */
export interface ColumnTurn {
  /** ISO; null for what has no instant: the handing in, the handing back, and what is waited for. */
  at: string | null;
  starts: StageStart | 'in';
  /** Whether it is known when it is. */
  known: boolean;
}

/** A stage from one turn to another; `to` is the number of turns where it has no end. */
export interface StageBar {
  stage: PlanStage;
  from: number;
  to: number;
  known: boolean;
}

/**
 * A plan as columns: one from each turn to the next, those not known yet last.
 *
 * @param about when results are handed back, now in ms, and whether something is seen before
 * @returns `nowAt`: the column that now falls into, with how far in it; null before all of them
 */
export function planColumns(
  stages: readonly PlanStage[],
  { releasedAt, now, after }: { releasedAt: string; now: number; after: boolean },
): { turns: ColumnTurn[]; bars: StageBar[]; nowAt: number | null } {
  const timed = stages.map((stage) => timedStage(stage, releasedAt));
  const instants = timed.flatMap((stage) => [stage?.from ?? null, stage?.until ?? null]);
  const dates = [...new Set(instants.filter((at) => at !== null && at > releasedAt))].sort() as string[];
  const waited = stages.flatMap(({ starts }, index) => (timed[index] ? [] : [starts]));
  const turns: ColumnTurn[] = [
    ...(after ? [{ at: null, starts: 'in' as const, known: true }] : []),
    { at: null, starts: 'handedBack', known: true },
    ...dates.map((at): ColumnTurn => ({ at, starts: 'at', known: true })),
    ...[...new Set(waited)].map((starts): ColumnTurn => ({ at: null, starts, known: false })),
  ];
  const first = after ? 1 : 0;
  const placeOf = (at: string | null) =>
    at === null || at <= releasedAt ? first : first + 1 + dates.indexOf(at);
  const bars = stages.map((stage, index): StageBar => {
    const of = timed[index];
    if (!of)
      return {
        stage,
        from: turns.findIndex(({ known, starts }) => !known && starts === stage.starts),
        to: turns.length,
        known: false,
      };
    return {
      stage,
      from: placeOf(of.from),
      to: of.until === null ? turns.length : placeOf(of.until),
      known: true,
    };
  });
  return {
    turns,
    bars,
    nowAt: now < Date.parse(releasedAt) ? null : first + along([releasedAt, ...dates], now),
  };
}

/** Between which of these instants now lies, and how far; past the last a third of the way. */
function along(instants: readonly string[], now: number): number {
  const at = instants.findLastIndex((instant) => Date.parse(instant) <= now);
  const [from, to] = [instants[at], instants[at + 1]];
  if (from === undefined) return 0;
  if (to === undefined) return at + (now > Date.parse(from) ? 1 / 3 : 0);
  return at + (now - Date.parse(from)) / (Date.parse(to) - Date.parse(from));
}
