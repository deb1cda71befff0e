import { liveQuery } from 'dexie';
import { useEffect } from 'react';
import type { ReleasePlan } from '@/core/model/release';
import { desk } from '@/store/tables';

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

/** What it hangs on is fetched only where there is such a plan. @returns ends it */
function keep(sittingId: string): () => void {
  let ended = false;
  let end = () => {
    ended = true;
  };
  import('./keepPlan').then(
    ({ keepPlan }) => {
      if (!ended) end = keepPlan(sittingId);
    },
    // The next page of the desk begins anew.
    () => undefined,
  );
  return () => end();
}
