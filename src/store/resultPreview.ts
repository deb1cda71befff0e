import { scriptFor } from '@/core/exchange';
import type { ResultReply } from '@/core/exchange/messages';
import { stagesOf, type ReleasePlan } from '@/core/model/release';
import { deskRepository } from './deskRepository';
import { desk } from './tables';

/**
 * What a student would see of a result at an instant, made the way the student's own packet is. Nothing is noted of it.
 *
 * @param plan the plan to look at; null: nothing is handed back, so only what is seen after handing in
 * @param at ms since 1970
 */
export async function resultPreview(
  sittingId: string,
  studentId: string,
  plan: ReleasePlan | null,
  at: number,
): Promise<ResultReply> {
  const [sitting, student] = await Promise.all([desk.sittings.get(sittingId), desk.students.get(studentId)]);
  if (!sitting || !student) return null;
  const kept = await desk.releases.get([sittingId, studentId]);
  const { heldBack: _held, ...release } = kept ?? {
    sittingId,
    studentId,
    releasedAt: new Date(at).toISOString(),
  };
  const stages = plan ? stagesOf(release, plan) : [];
  return scriptFor(
    {
      ...deskRepository,
      releaseOf: async () =>
        plan ? { ...release, stages, unfinished: plan.whole ? (plan.unfinished ?? []) : [] } : undefined,
    },
    student,
    sitting,
    at,
  );
}
