import { liveSitting } from '@/store/live/liveSitting';
import { followPlan } from '@/store/releases';

/** After a change the plan is looked at once it has been quiet for so long. */
const quietMs = 800;
/** What turns by time alone is looked at so often. */
const againMs = 60_000;

/** Keeps the plan of a sitting up to how the sitting stands. @returns ends it */
export function keepPlan(sittingId: string): () => void {
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
