import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { lastMaySit } from '@/core/handback/lastMaySit';
import { planDue } from '@/core/handback/planDue';
import { planFindings, templateStages, type PlanFinding } from '@/core/handback/planFindings';
import { planPeriods, type PlanPeriod } from '@/core/handback/planPeriods';
import { givesKeyAway, stillToSit } from '@/core/handback/readiness';
import {
  hasResult,
  letOutAt,
  timedStage,
  type PlanStage,
  type ReleasePlan,
  type Shows,
} from '@/core/model/release';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { newId } from '@/store/ids';
import { changePlan, lastElsewhere, noPlan, stillToSitElsewhere } from '@/store/releases';
import { useAtOnce } from '@/ui/useAtOnce';
import { isoNow } from '@/ui/clock';
import { done } from '@/words/done';

/** The plan of a sitting as it is looked at and changed. */
export interface PlanAtHand {
  /** As it would be kept: with what is known by now of when its stages begin. */
  plan: ReleasePlan;
  /** The stages that are shown and changed: the draft where there is one. */
  stages: PlanStage[];
  periods: PlanPeriod[];
  findings: PlanFinding[];
  /** When results were handed back first, or would be: now. */
  releasedAt: string;
  /** How many have their result. */
  have: number;
  /** How many may still sit the paper, here and elsewhere. */
  mayStillSit: number;
  /** What these stages would show now that tells what is right while others may still sit; null: nothing. */
  spoiltBy: (stages: readonly PlanStage[]) => Shows | null;
  change: (stages: PlanStage[]) => void;
  setOption: (part: Partial<Pick<ReleasePlan, 'follows' | 'whole' | 'invites'>>) => void;
}

/** Friday at 16:00, this week or the next. */
export function nextFriday(now: number): string {
  const day = new Date(now);
  day.setDate(day.getDate() + ((5 - day.getDay() + 7) % 7 || 7));
  day.setHours(16, 0, 0, 0);
  return day.toISOString();
}

export function usePlan(sitting: SittingData): PlanAtHand {
  const { sitting: record, seats, now } = sitting;
  const [shown, show] = useAtOnce<ReleasePlan | null | undefined>(sitting.plan);
  const [first] = useState(() => templateStages('all', nextFriday(Date.now()), newId));
  const minute = Math.floor(now / 60_000) * 60_000;
  const elsewhere = useLiveQuery(
    async () => ({
      last: await lastElsewhere(record, minute),
      still: await stillToSitElsewhere(record, minute),
    }),
    [record, minute],
  );
  return useMemo(() => {
    const iso = new Date(now).toISOString();
    const base = shown ?? undefined;
    const put = (next: ReleasePlan) => {
      const writing = act(changePlan(next, done.planChanged, isoNow(), base));
      show(next, writing);
      void writing.then((kept) => kept ?? show(base));
    };
    const kept = base ?? { ...noPlan(record.id, iso), stages: first };
    // Whom it hands back to is not asked here: that goes by itself.
    const due = planDue({ ...kept, follows: false }, seats, now, elsewhere?.last ?? null);
    const plan: ReleasePlan = due
      ? { ...due.plan, ...('follows' in kept && { follows: kept.follows }) }
      : kept;
    const having = seats.filter(({ release }) => hasResult(release));
    const releasedAt = having.map(({ release }) => release?.releasedAt ?? iso).sort()[0] ?? iso;
    const stages = plan.draft ?? plan.stages;
    const timed = stages.flatMap((stage) => timedStage(stage, releasedAt) ?? []);
    const mayStillSit = stillToSit(seats) + (elsewhere?.still ?? 0);
    const last = [lastMaySit(seats, now), elsewhere?.last ?? null].filter((each) => each !== null);
    return {
      ...{ plan, stages, releasedAt, have: having.length, mayStillSit },
      periods: planPeriods(timed, releasedAt),
      findings: planFindings(stages, {
        ...{ releasedAt, mayStillSit },
        lastMaySit: last.length > 0 ? Math.max(...last) : null,
      }),
      spoiltBy: (those) => {
        const open = those.flatMap((stage) => timedStage(stage, releasedAt) ?? []);
        const seen = letOutAt({ stages: open, releasedAt }, now)?.shows ?? null;
        return seen && mayStillSit > 0 && givesKeyAway(seen) ? seen : null;
      },
      change: (next: PlanStage[]) => {
        // What somebody sees already changes only when the teacher says so.
        put(having.length > 0 ? { ...plan, draft: next } : { ...plan, stages: next });
      },
      setOption: (part) => put({ ...plan, ...part }),
    };
  }, [shown, show, record.id, seats, now, elsewhere, first]);
}
