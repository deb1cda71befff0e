import { z } from 'zod';
import { Response } from '../kinds';
import { Id, Instant, Line, Text } from './common';
import { FileRef } from './file';

/** Which of several attempts counts. */
export const CountRule = z.enum(['last', 'best', 'first']);
export type CountRule = z.infer<typeof CountRule>;

/** One run of a paper by chosen groups, within its times. */
export const Sitting = z.object({
  id: Id,
  paperId: Id,
  /** The version that is sat and scored; null until the first student starts: then the paper as it stands is frozen. */
  paperVersion: z.number().int().min(1).nullable(),
  title: Line,
  groupIds: Id.array(),
  opensAt: Instant,
  /** Null: no end. */
  closesAt: Instant.nullable(),
  /** Null: no limit. */
  timeLimitMs: z.number().int().positive().nullable(),
  /** Empty: none asked. */
  accessCode: Line,
  /** How many attempts everyone may make; absent: one. */
  attempts: z.number().int().min(1).max(50).optional(),
  /** Absent: the last. */
  counts: CountRule.optional(),
  /** From then on nobody new may start; null: open to new starts. */
  closedToStartsAt: Instant.nullable(),
  createdAt: Instant,
});
export type Sitting = z.infer<typeof Sitting>;

const allowanceFields = {
  id: Id,
  sittingId: Id,
  studentId: Id,
  reason: Line,
  at: Instant,
};

/** What one student may have beyond the sitting's rules, and why. */
export const Allowance = z.discriminatedUnion('kind', [
  z.object({ ...allowanceFields, kind: z.literal('minutes'), minutes: z.number().positive().max(10_000) }),
  /** Percent of the time limit. */
  z.object({ ...allowanceFields, kind: z.literal('percent'), percent: z.number().min(1).max(300) }),
  z.object({ ...allowanceFields, kind: z.literal('attempt') }),
  /** May start although the sitting is closed to new starts. */
  z.object({ ...allowanceFields, kind: z.literal('lateStart') }),
  /** Other times than everyone's; what is null is as for everyone. */
  z.object({
    ...allowanceFields,
    kind: z.literal('window'),
    opensAt: Instant.nullable(),
    closesAt: Instant.nullable(),
  }),
]);
export type Allowance = z.infer<typeof Allowance>;

/** One student's response to one question, with when it was last changed. */
export const Answer = z.object({ response: Response, at: Instant });
export type Answer = z.infer<typeof Answer>;

/** Answers by question id. */
export const Answers = z.record(Id, Answer);
export type Answers = z.infer<typeof Answers>;

export const AttemptEvent = z.object({
  kind: z.enum(['started', 'cameBack', 'handedIn', 'collected', 'carriedOn', 'setAside', 'takenBack']),
  at: Instant,
  reason: Line.optional(),
});
export type AttemptEvent = z.infer<typeof AttemptEvent>;

/** One student's go at a sitting, with all answers. */
export const Attempt = z.object({
  id: Id,
  sittingId: Id,
  studentId: Id,
  /** 1 for the first go, 2 for the second… */
  number: z.number().int().min(1),
  /** The version of the paper this student had. */
  paperVersion: z.number().int().min(1),
  /** The questions given, in the order given. */
  questionIds: Id.array(),
  answers: Answers,
  /** Questions the student marked to come back to. */
  comeBack: Id.array(),
  startedAt: Instant,
  lastSeenAt: Instant,
  handedInAt: Instant.nullable(),
  /** Taken in by the teacher; time running out is computed, not stored. */
  collectedAt: Instant.nullable(),
  events: AttemptEvent.array(),
  /** How long it stood still before it was carried on: its time ends so much later. */
  pausedMs: z.number().min(0).optional(),
  /** Since when it does not count; absent or null: it does. */
  setAsideAt: Instant.nullable().optional(),
  /** The files that came with the answers. */
  files: FileRef.array().optional(),
});
export type Attempt = z.infer<typeof Attempt>;

/** What a marker decided about one answer: points by hand, or an override of the key. */
export const HandMark = z.object({
  attemptId: Id,
  questionId: Id,
  sittingId: Id,
  /** Null: seen (commented, put aside) but no points yet. */
  points: z.number().min(0).max(1000).nullable(),
  /** Ids of the scheme lines met. */
  lines: Id.array(),
  comment: Text,
  /** To be looked at again. */
  aside: z.boolean(),
  at: Instant,
});
export type HandMark = z.infer<typeof HandMark>;

/** What a student is shown when a sitting is handed back. */
export const Shows = z.object({
  total: z.boolean(),
  points: z.boolean(),
  answers: z.boolean(),
  rightOrWrong: z.boolean(),
  accepted: z.boolean(),
  comments: z.boolean(),
});
export type Shows = z.infer<typeof Shows>;

/** One student's result of one sitting, let out. */
export const Release = z.object({
  sittingId: Id,
  studentId: Id,
  shows: Shows,
  releasedAt: Instant,
  /** When the student looked at it. */
  openedAt: Instant.array(),
});
export type Release = z.infer<typeof Release>;
