import { whatWaits, type WaitingAnswers } from '@/core/marking/whatWaits';
import type { Group } from '@/core/model/people';
import { progress, sittingRecords } from './queries';
import { desk } from './tables';

/** What waits in one sitting, with the groups it is for. */
export interface WaitingRow extends WaitingAnswers {
  groups: Group[];
}

/** Everything on the desk that waits for a hand; sittings in which nothing does are not read. */
export async function waitingRows(now: number): Promise<WaitingRow[]> {
  const rows: WaitingRow[] = [];
  for (const sitting of await desk.sittings.toArray()) {
    if (sitting.rehearsal || sitting.archivedAt !== undefined) continue;
    const stands = (await progress(sitting, now))?.progress;
    if (!stands || stands.waiting + stands.forward === 0) continue;
    const records = await sittingRecords(sitting.id);
    if (records) for (const each of whatWaits(records, now)) rows.push({ ...each, groups: records.groups });
  }
  return rows;
}
