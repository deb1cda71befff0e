import { wholeTotals } from '@/core/handback/wholeTotals';
import type { Sitting } from '@/core/model/sitting';
import { seatsOf } from '@/core/seats/seats';
import { sittingRecords } from './queries';

/** For so long the totals of a class are not computed anew: one after the other, its students ask for them. */
const holdsMs = 5_000;
const held = new Map<string, { at: number; totals: Promise<number[]> }>();

/** The whole totals of a sitting, in points. */
export async function classTotals({ id }: Sitting, now: number): Promise<number[]> {
  const known = held.get(id);
  if (known && now >= known.at && now - known.at < holdsMs) return known.totals;
  const totals = sittingRecords(id).then((records) => (records ? wholeTotals(seatsOf(records, now)) : []));
  held.set(id, { at: now, totals });
  return totals;
}
