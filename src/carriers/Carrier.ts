import { z } from 'zod';
import { Answers } from '@/core/model/sitting';
import { Id, Instant, Line } from '@/core/model/common';
import { RichText } from '@/core/model/richText';
import { FileRef } from '@/core/model/file';
import { PaperPacket } from '@/core/formats/packet/paper';
import { ScriptPacket } from '@/core/handback/script';

/** Who a join code belongs to. */
export const Greeting = z.object({ joinCode: Line, familyName: Line, givenName: Line, groups: Line.array() });
export type Greeting = z.infer<typeof Greeting>;

/** One sitting as its student sees it before going in. */
export const HomeSitting = z.object({
  sittingId: Id,
  title: Line,
  /** Empty unless the student may start. */
  instructions: RichText,
  questions: z.number().int(),
  opensAt: Instant,
  closesAt: Instant.nullable(),
  /** For this student, with what was allowed. */
  timeLimitMs: z.number().nullable(),
  codeAsked: z.boolean(),
  may: z.enum(['start', 'resume', 'notYet', 'over', 'closedToStarts', 'noAttemptLeft']),
  state: z.enum(['notStarted', 'working', 'handedIn', 'collected', 'collectedByTime']),
  handedBack: z.boolean(),
});
export type HomeSitting = z.infer<typeof HomeSitting>;

/** How an attempt stands by the teacher's clock. */
export const AttemptStatus = z.object({
  attemptId: Id,
  state: z.enum(['working', 'handedIn', 'collected', 'collectedByTime']),
  /** When time is up, ms since 1970 by the clock that rules; null: never. */
  deadline: z.number().nullable(),
  /** What that clock says now. */
  now: z.number(),
  /** The questions whose answers have arrived. */
  answered: Id.array(),
  endedAt: Instant.nullable(),
});
export type AttemptStatus = z.infer<typeof AttemptStatus>;

export const StartReply = z.discriminatedUnion('outcome', [
  z.object({ outcome: z.literal('started'), packet: PaperPacket, status: AttemptStatus }),
  z.object({
    outcome: z.literal('refused'),
    why: z.enum(['unknown', 'wrongCode', 'notReady', 'notYet', 'over', 'closedToStarts', 'noAttemptLeft']),
  }),
]);
export type StartReply = z.infer<typeof StartReply>;

export const ResultReply = ScriptPacket.nullable();
export type ResultReply = z.infer<typeof ResultReply>;

export const HandOverRequest = z.object({ answers: Answers, comeBack: Id.array().nullable() });
export type HandOverRequest = z.infer<typeof HandOverRequest>;

/** A file on its way, with its bytes. */
export const CarriedFile = FileRef.extend({ bytes: z.instanceof(Uint8Array) });
export type CarriedFile = z.infer<typeof CarriedFile>;

/** Whether a file was taken; `tooMuch`: too large, or too many for one attempt; `over`: time is up. */
export const FileReply = z.enum(['kept', 'tooMuch', 'over', 'unknown']);
export type FileReply = z.infer<typeof FileReply>;

/**
 * How packets travel between a student and the desk. The student's pages know this and nothing behind it: in the
 * same browser, by hand as files, or over the classroom server. Any call may fail; the caller keeps what it has
 * and asks again.
 */
export interface Carrier {
  /** Who this join code belongs to; null when to nobody. */
  greet(joinCode: string): Promise<Greeting | null>;
  /** The student's sittings, newest first. */
  home(joinCode: string): Promise<HomeSitting[]>;
  /** Begins an attempt, or goes on with the one that runs. */
  start(joinCode: string, sittingId: string, accessCode: string): Promise<StartReply>;
  /** Hands answers over as they are typed; with none, a sign of life. Null when the attempt is not known. */
  handOver(joinCode: string, attemptId: string, request: HandOverRequest): Promise<AttemptStatus | null>;
  /** Hands over a file that an answer names; it goes before that answer. */
  handOverFile(joinCode: string, attemptId: string, file: CarriedFile): Promise<FileReply>;
  /** A picture of the paper, or a file of one's own answers; null when it is not this student's to see. */
  file(joinCode: string, sittingId: string, fileId: string): Promise<CarriedFile | null>;
  handIn(joinCode: string, attemptId: string): Promise<AttemptStatus | null>;
  /** What has been let out of the result; null while nothing has. */
  result(joinCode: string, sittingId: string): Promise<ResultReply>;
}
