import { Release, type Shows } from '@/core/model/sitting';
import { runCommand } from './command';
import { desk } from './tables';

const countOf = (count: number) => (count === 1 ? '1 student' : `${count} students`);

/** Lets students see their results. Those who had theirs already get the new choice of what is shown. */
export async function handBack(sittingId: string, studentIds: readonly string[], shows: Shows, now: string) {
  const said = `Handed back to ${countOf(studentIds.length)}`;
  return runCommand({ command: 'handBack', said, about: sittingId }, now, async (record) => {
    for (const studentId of studentIds) {
      const before = await desk.releases.get([sittingId, studentId]);
      const release = { sittingId, studentId, shows, releasedAt: now, openedAt: before?.openedAt ?? [] };
      await record.put('releases', Release.parse(release));
    }
  });
}

export async function takeBack(sittingId: string, studentIds: readonly string[], now: string) {
  const said = `Taken back from ${countOf(studentIds.length)}`;
  return runCommand({ command: 'takeBack', said, about: sittingId }, now, async (record) => {
    for (const studentId of studentIds) await record.remove('releases', [sittingId, studentId]);
  });
}
