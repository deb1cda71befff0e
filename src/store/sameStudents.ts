import type { Sitting } from '@/core/model/sitting';
import { desk } from './tables';

/** Other sittings that some of the same students took, those with the most of them first. */
export async function sittingsOfSameStudents(sittingId: string): Promise<Sitting[]> {
  const own = new Set((await desk.attempts.where({ sittingId }).toArray()).map(({ studentId }) => studentId));
  const shared = new Map<string, Set<string>>();
  await desk.attempts
    .where('studentId')
    .anyOf([...own])
    .each((attempt) => {
      if (attempt.sittingId === sittingId) return;
      const known = shared.get(attempt.sittingId) ?? new Set();
      shared.set(attempt.sittingId, known.add(attempt.studentId));
    });
  const sittings = await desk.sittings.bulkGet([...shared.keys()]);
  return sittings
    .filter((each): each is Sitting => each !== undefined && each.rehearsal !== true && each.share !== true)
    .filter(({ id }) => (shared.get(id)?.size ?? 0) > 1)
    .sort(
      (a, b) =>
        (shared.get(b.id)?.size ?? 0) - (shared.get(a.id)?.size ?? 0) || (a.opensAt < b.opensAt ? 1 : -1),
    );
}
