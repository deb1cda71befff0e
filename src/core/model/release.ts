import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';

/** What a student is shown of a result. What came later than the first six may be absent in what was kept before. */
export const Shows = z.object({
  total: z.boolean(),
  points: z.boolean(),
  answers: z.boolean(),
  rightOrWrong: z.boolean(),
  accepted: z.boolean(),
  comments: z.boolean(),
  /** Absent: with the total. */
  percent: z.boolean().optional(),
  grade: z.boolean().optional(),
  /** The lines of the scheme that were met. */
  lines: z.boolean().optional(),
  /** All lines of the scheme. */
  scheme: z.boolean().optional(),
  /** The marker's marks on the work. Absent: with the comments. */
  work: z.boolean().optional(),
  topics: z.boolean().optional(),
  /** Mean and spread of the class. */
  figures: z.boolean().optional(),
  /** The student's own place in the class. */
  place: z.boolean().optional(),
});
export type Shows = z.infer<typeof Shows>;
export type Shown = keyof Shows;

/** Everything that can be shown, in the order in which it is listed. */
export const shownThings = [
  ...(['total', 'percent', 'grade', 'points', 'answers', 'rightOrWrong', 'accepted', 'comments'] as const),
  ...(['work', 'lines', 'scheme', 'topics', 'figures', 'place'] as const),
] as const satisfies readonly Shown[];

/** Whether a result is shown with this. */
export function isShown(shows: Shows, what: Shown): boolean {
  const said = shows[what];
  if (said !== undefined) return said;
  return what === 'percent' ? shows.total : what === 'work' ? shows.comments : false;
}

/** Only what is listed. */
export const showing = (...what: readonly Shown[]): Shows =>
  Object.fromEntries(shownThings.map((each) => [each, what.includes(each)])) as Shows; // every thing has its value

/** What any of these shows. */
export const shownTogether = (all: readonly Shows[]): Shows =>
  showing(...shownThings.filter((what) => all.some((shows) => isShown(shows, what))));

/** Whether two show the same. */
export const showsSame = (a: Shows | null, b: Shows | null): boolean =>
  a === null || b === null ? a === b : shownThings.every((what) => isShown(a, what) === isShown(b, what));

/** From when until when which parts of a result are seen. */
export const ReleaseStage = z.object({
  /** Null: at once, whatever the clocks of desk, server and device say of each other. */
  from: Instant.nullable(),
  /** Null: without an end. */
  until: Instant.nullable(),
  shows: Shows,
});
export type ReleaseStage = z.infer<typeof ReleaseStage>;

/**
 * What a stage waits for: the handing back itself, an instant, that nobody may still sit and all is marked, that nobody may
 * still sit, or the teacher.
 */
export const StageStart = z.enum(['handedBack', 'at', 'marked', 'sat', 'hand']);
export type StageStart = z.infer<typeof StageStart>;

/** A stage as it is planned. */
export const PlanStage = z.object({
  id: Id,
  starts: StageStart,
  /** When it begins, as far as that is known; null for what begins with the handing back. */
  at: Instant.nullable(),
  /** Null: without an end. */
  until: Instant.nullable(),
  /** How long it lasts, ms; null: as long as it may. */
  lastsMs: z.number().int().positive().max(31_622_400_000).nullable(),
  shows: Shows,
});
export type PlanStage = z.infer<typeof PlanStage>;

/** What students are invited to once they have their results. */
export const Invites = z.object({
  /** Asking about a mark. */
  asks: z.boolean(),
  /** Answering again what was missed, until then, for a share of the points that are missing. */
  correct: z.object({ share: z.number().min(0).max(1), until: Instant.nullable() }).nullable(),
});
export type Invites = z.infer<typeof Invites>;

/** How the results of a sitting are let out over time. */
export const ReleasePlan = z.object({
  sittingId: Id,
  stages: PlanStage.array().max(20),
  /** Stages that hold only once the teacher says so: students have their results by the others. */
  draft: PlanStage.array().max(20).optional(),
  /** Whether results that become ready later are handed back by themselves. */
  follows: z.boolean().optional(),
  /** Whether points and comments of a question are seen only once it is marked for all. */
  whole: z.boolean().optional(),
  /** The questions that are not marked for all, as the desk saw last. */
  unfinished: Id.array().optional(),
  invites: Invites.optional(),
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
export const Opening = z.object({
  sittingId: Id,
  studentId: Id,
  at: Instant.array(),
  /** Those of them that were on a device of the student's own, over the server; the others were in the desk's browser. */
  onDevice: Instant.array().optional(),
});
export type Opening = z.infer<typeof Opening>;

/** Whether a student has the result: it was handed back, and is not held back. */
export const hasResult = (release: Release | null): boolean => release !== null && !release.heldBack;

/**
 * A planned stage with its times, for a result that was handed back then; null while nobody knows when it begins, or where it
 * would be over before.
 */
export function timedStage(stage: PlanStage, releasedAt: string): ReleaseStage | null {
  const { starts, at, until, lastsMs, shows } = stage;
  const from = starts === 'handedBack' ? null : at;
  if (starts !== 'handedBack' && from === null) return null;
  const length = lastsMs === null ? null : iso(Date.parse(from ?? releasedAt) + lastsMs);
  const end = [until, length].filter((each) => each !== null).sort()[0] ?? null;
  return end !== null && end <= (from ?? releasedAt) ? null : { from, until: end, shows };
}

const iso = (ms: number) => new Date(ms).toISOString();

/** The stages of one student's result; none where it is held back, or there is no plan. */
export function stagesOf(release: Release, plan: ReleasePlan | null | undefined): ReleaseStage[] {
  if (release.heldBack) return [];
  if (release.shows) return [{ from: null, until: null, shows: release.shows }];
  return (plan?.stages ?? []).flatMap((stage) => timedStage(stage, release.releasedAt) ?? []);
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
  return { shows: shownTogether(open.map(({ shows }) => shows)), at: since.at(-1) ?? releasedAt };
}

/** Whatever any of the stages shows that are not over; null where all are. What is made of a result once holds this. */
export function everLetOut(stages: readonly ReleaseStage[], now: number): Shows | null {
  const ahead = stages.filter(({ until }) => until === null || now < Date.parse(until));
  return ahead.length === 0 ? null : shownTogether(ahead.map(({ shows }) => shows));
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
