import { liveQuery } from 'dexie';
import { useEffect } from 'react';
import type { ReleasePlan } from '@/core/model/release';
import { liveSitting } from '@/store/live/liveSitting';
import { followPlan } from '@/store/releases';
import { desk } from '@/store/tables';

/** After a change the plan is looked at once it has been quiet for so long. */
const quietMs = 800;
/** What turns by time alone is looked at so often. */
const againMs = 60_000;

/** Whether a plan hangs on how its sitting stands. */
const waits = ({ stages, draft = [], follows, whole }: ReleasePlan): boolean =>
  follows === true ||
  whole === true ||
  [...stages, ...draft].some(
    ({ starts, at }) =>
      (starts === 'sat' || starts === 'marked') && (at === null || Date.parse(at) > Date.now()),
  );

/** Keeps plans of handing back up to how their sittings stand, as long as a page of the desk is open. */
export function usePlansKept(): void {
  useEffect(() => {
    const kept = new Map<string, () => void>();
    const plans = liveQuery(() => desk.releasePlans.toArray()).subscribe((all) => {
      const ids = new Set(all.filter(waits).map(({ sittingId }) => sittingId));
      for (const [id, stop] of kept)
        if (!ids.has(id)) {
          stop();
          kept.delete(id);
        }
      for (const id of ids) if (!kept.has(id)) kept.set(id, keep(id));
    });
    return () => {
      plans.unsubscribe();
      for (const stop of kept.values()) stop();
    };
  }, []);
}

/** @returns ends it */
function keep(sittingId: string): () => void {
  const live = liveSitting(sittingId);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const look = () => {
    const now = Date.now();
    const seats = live.at(now)?.seats;
    // What could not be stored is tried again with the next change.
    if (seats) void followPlan(sittingId, seats, new Date(now).toISOString()).catch(() => undefined);
  };
  const soon = () => {
    clearTimeout(timer);
    timer = setTimeout(look, quietMs);
  };
  const stop = live.subscribe(soon);
  const again = setInterval(look, againMs);
  soon();
  return () => {
    clearTimeout(timer);
    clearInterval(again);
    stop();
  };
}
