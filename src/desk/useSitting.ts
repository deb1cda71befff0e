import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import type { PaperContent } from '@/core/model/paper';
import type { Group } from '@/core/model/people';
import { seatsOf, type Seat, type SittingRecords } from '@/core/seats/seats';
import { progressFrom, type SittingProgress } from '@/core/seats/progress';
import { sittingFrame } from '@/store/queries';
import { desk } from '@/store/tables';
import { useNow } from '../ui/clock';

/** One sitting with everything computed from its rows. */
export interface SittingData extends SittingRecords {
  paper: PaperContent;
  groups: Group[];
  seats: Seat[];
  progress: SittingProgress;
  now: number;
}

/**
 * One sitting, live. Each table is a query of its own, so that a new mark does not read all attempts again.
 * Undefined while it loads; null when there is no such sitting.
 */
export function useSitting(sittingId: string, tickMs = 30_000): SittingData | null | undefined {
  const now = useNow(tickMs);
  const frame = useLiveQuery(() => sittingFrame(sittingId), [sittingId]);
  const attempts = useLiveQuery(() => desk.attempts.where({ sittingId }).toArray(), [sittingId]);
  const marks = useLiveQuery(() => desk.marks.where({ sittingId }).toArray(), [sittingId]);
  const allowances = useLiveQuery(() => desk.allowances.where({ sittingId }).toArray(), [sittingId]);
  const releases = useLiveQuery(() => desk.releases.where({ sittingId }).toArray(), [sittingId]);
  const openings = useLiveQuery(() => desk.openings.where({ sittingId }).toArray(), [sittingId]);
  return useMemo(() => {
    if (frame === null) return null;
    if (!frame || !attempts || !marks || !allowances || !releases || !openings) return undefined;
    const records = { ...frame, attempts, marks, allowances, releases, openings };
    const seats = seatsOf(records, now);
    return { ...records, seats, progress: progressFrom(records.sitting, seats, now), now };
  }, [frame, attempts, marks, allowances, releases, openings, now]);
}
