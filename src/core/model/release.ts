import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';

/** What a student is shown of a result. */
export const Shows = z.object({
  total: z.boolean(),
  points: z.boolean(),
  answers: z.boolean(),
  rightOrWrong: z.boolean(),
  accepted: z.boolean(),
  comments: z.boolean(),
});
export type Shows = z.infer<typeof Shows>;

/** From when until when which parts of a result are seen. */
export const ReleaseStage = z.object({
  /** Null: at once, whatever the clocks of desk, server and device say of each other. */
  from: Instant.nullable(),
  /** Null: without an end. */
  until: Instant.nullable(),
  shows: Shows,
});
export type ReleaseStage = z.infer<typeof ReleaseStage>;

/** How the results of a sitting are let out over time. */
export const ReleasePlan = z.object({
  sittingId: Id,
  stages: ReleaseStage.array().max(20),
  at: Instant,
});
export type ReleasePlan = z.infer<typeof ReleasePlan>;

/** One student's result of one sitting, let out: by the plan of the sitting, or by itself from then on. */
export const Release = z.object({
  sittingId: Id,
  studentId: Id,
  /** What is seen from `releasedAt` on, whatever the plan says; absent: as the plan says. */
  shows: Shows.optional(),
  releasedAt: Instant,
  /** Since when and why nothing of it is seen for now. */
  heldBack: z.object({ at: Instant, reason: Line }).optional(),
});
export type Release = z.infer<typeof Release>;

/** When a student looked at what was let out: the student's, and kept when it is withdrawn and handed back again. */
export const Opening = z.object({ sittingId: Id, studentId: Id, at: Instant.array() });
export type Opening = z.infer<typeof Opening>;

/** The stages of one student's result; none where it is held back, or there is no plan. */
export function stagesOf(release: Release, plan: ReleasePlan | null | undefined): ReleaseStage[] {
  if (release.heldBack) return [];
  if (release.shows) return [{ from: null, until: null, shows: release.shows }];
  return plan?.stages ?? [];
}

/** What is let out of a result, and since when. */
export interface LetOut {
  shows: Shows;
  at: string;
}

/**
 * What is seen at an instant: whatever any of the stages shows that are open then; null while none is.
 *
 * @param now ms since 1970
 */
export function letOutAt(
  { stages, releasedAt }: { stages: readonly ReleaseStage[]; releasedAt: string },
  now: number,
): LetOut | null {
  const open = stages.filter(
    ({ from, until }) =>
      (from === null || Date.parse(from) <= now) && (until === null || now < Date.parse(until)),
  );
  if (open.length === 0) return null;
  const since = open.map(({ from }) => from ?? releasedAt).sort();
  return { shows: together(open), at: since.at(-1) ?? releasedAt };
}

/** Whatever any of the stages shows that are not over; null where all are. What is made of a result once holds this. */
export function everLetOut(stages: readonly ReleaseStage[], now: number): Shows | null {
  const ahead = stages.filter(({ until }) => until === null || now < Date.parse(until));
  return ahead.length === 0 ? null : together(ahead);
}

/** The next instant at which something else is seen, ms since 1970; Infinity where none is ahead. */
export const nextTurn = (stages: readonly ReleaseStage[], now: number): number =>
  Math.min(
    Infinity,
    ...stages
      .flatMap(({ from, until }) => [from, until])
      .map((at) => (at === null ? -Infinity : Date.parse(at)))
      .filter((at) => at > now),
  );

function together(stages: readonly ReleaseStage[]): Shows {
  const any = (what: keyof Shows) => stages.some(({ shows }) => shows[what]);
  return {
    total: any('total'),
    points: any('points'),
    answers: any('answers'),
    rightOrWrong: any('rightOrWrong'),
    accepted: any('accepted'),
    comments: any('comments'),
  };
}
