import { done } from '@/words/done';
import { stillToSit } from '@/core/handback/readiness';
import { type Sitting } from '@/core/model/sitting';
import { Release, type Shows } from '@/core/model/release';
import { seatsOf } from '@/core/seats/seats';
import { runCommand } from './command';
import { sittingRecords } from './queries';
import { desk } from './tables';

/** Lets students see their results. Those who had theirs already get the new choice of what is shown. */
export async function handBack(sittingId: string, studentIds: readonly string[], shows: Shows, now: string) {
  const said = done.handedBack(studentIds.length);
  return runCommand({ command: 'handBack', said, about: sittingId }, now, async (record) => {
    for (const studentId of studentIds) {
      const release = { sittingId, studentId, shows, releasedAt: now };
      await record.put('releases', Release.parse(release));
    }
  });
}

export async function withdrawResults(sittingId: string, studentIds: readonly string[], now: string) {
  const said = done.withdrawn(studentIds.length);
  return runCommand({ command: 'withdrawResults', said, about: sittingId }, now, async (record) => {
    for (const studentId of studentIds) await record.remove('releases', [sittingId, studentId]);
  });
}

/** How many students may still sit the paper of a sitting in other sittings of it. */
export async function stillToSitElsewhere({ id, paperId }: Sitting, now: number): Promise<number> {
  const others = await desk.sittings
    .where({ paperId })
    .filter((sitting) => sitting.id !== id && sitting.rehearsal !== true)
    .toArray();
  let count = 0;
  for (const sitting of others) {
    const records = await sittingRecords(sitting.id);
    if (records) count += stillToSit(seatsOf(records, now));
  }
  return count;
}
