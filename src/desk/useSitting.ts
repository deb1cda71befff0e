import { useMemo, useSyncExternalStore } from 'react';
import type { PaperContent } from '@/core/model/paper';
import type { Group } from '@/core/model/people';
import type { Repair } from '@/core/model/repair';
import type { PointsTable } from '@/core/scoring/pointsTable';
import type { SittingProgress } from '@/core/seats/progress';
import type { Seat, SittingRecords } from '@/core/seats/seats';
import { liveSitting, type LiveSitting, type SittingNow } from '@/store/live/liveSitting';
import { useNow } from '@/ui/clock';

/** One sitting with everything computed from its rows. */
export interface SittingData extends SittingRecords {
  paper: PaperContent;
  groups: Group[];
  /** Whether the paper was changed since it was sat, and it is not scored with that. */
  pending: boolean;
  /** What was repaired since it was sat. */
  repairs: Repair[];
  seats: Seat[];
  progress: SittingProgress;
  /** All its points: kept up in place, so what is computed from it hangs on `seats`. */
  table: PointsTable;
  /** How many of how many attempts have been read, where a view shows what there is so far; null once all have. */
  reading: SittingNow['reading'];
  now: number;
}

/**
 * One sitting, live: a change reads and computes what it touched, and everything else stays the same object. Undefined
 * while it loads; null when there is no such sitting.
 *
 * @param soFar a large sitting is given while its attempts are still read (`reading`): for views that say so
 */
export function useSitting(
  sittingId: string,
  tickMs = 30_000,
  soFar = false,
): SittingData | null | undefined {
  const live = liveSitting(sittingId);
  const now = useNow(tickMs);
  const version = useSyncExternalStore(live.subscribe, live.getVersion, () => 0);
  return useMemo(() => {
    const sitting = live.at(now, soFar);
    return sitting && dataOf(live, sitting, now, version);
  }, [live, now, version, soFar]);
}

/** @param _version what it was made for: a list of rows is the one of that moment */
function dataOf(live: LiveSitting, sitting: SittingNow, now: number, _version: number): SittingData {
  const { frame, seats, progress, table, reading } = sitting;
  return {
    ...frame,
    seats,
    progress,
    table,
    reading,
    now,
    // Few views ask for these, and a list of all is long.
    get attempts() {
      return live.rows('attempts');
    },
    get marks() {
      return live.rows('marks');
    },
    get allowances() {
      return live.rows('allowances');
    },
    get releases() {
      return live.rows('releases');
    },
    get openings() {
      return live.rows('openings');
    },
  };
}
