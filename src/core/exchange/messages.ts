import { z } from 'zod';
import type { MessageName } from './messageList';
import { Answer, Answers, Asks, ExceptionRequest } from '../model/sitting';
import { PracticeView } from '../attempts/practice';
import { Response } from '../kinds';
import { Id, Instant, Line } from '../basics/common';
import { RichText } from '../basics/richText';
import { FileRef } from '../basics/file';
import { PaperPacket } from '../formats/packet/paper';
import { ScriptPacket } from '../handback/script';

/** Who a join code belongs to. */
export const Greeting = z.object({
  joinCode: Line,
  familyName: Line,
  givenName: Line,
  groups: Line.array(),
  /** Came in under a typed name. */
  guest: z.boolean().optional(),
});
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
  /** How much time the attempt that runs has left, ms; absent: none runs, or without a limit. */
  leftMs: z.number().min(0).optional(),
  /** Whether there is something to see of the result. */
  handedBack: z.boolean(),
  practice: z.boolean(),
  /**
   * It came as a file, and its answers go back as one: whether there are any yet, and whether they were saved as they
   * are. Absent: they travel by themselves.
   */
  inFile: z.enum(['nothing', 'toSave', 'saved']).optional(),
  oneByOne: z.boolean(),
  noBack: z.boolean(),
  /** Answers that came after the end: how many wait for the teacher, count, and do not count. */
  late: z.object({ waits: z.number().int(), counts: z.number().int(), not: z.number().int() }).optional(),
  /** What the student asked for here, and what was said to it; the latest last. */
  requests: ExceptionRequest.pick({ asks: true, words: true, at: true, answer: true }).array(),
});
export type HomeSitting = z.infer<typeof HomeSitting>;

/**
 * What became of an answer: it counts (or what was typed on top of it does), it is kept beside a newer one, it came after
 * the end and is kept apart, or it belongs nowhere.
 */
export const Became = z.enum(['counts', 'beside', 'late', 'refused']);
export type Became = z.infer<typeof Became>;

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
  /** What became of the answers that were handed over just now, by question. */
  became: z.record(Id, Became),
  /** Where two devices answered one question without knowing of each other: the student chooses. */
  choices: z.object({ questionId: Id, counts: Answer, others: Answer.array() }).array(),
  /** Answers that came after the end; `counts` is null while the teacher has not decided. */
  late: z.object({ questionId: Id, typedAt: Instant, counts: z.boolean().nullable() }).array(),
  /** Whether it goes on in another tab or on another device. */
  elsewhere: z.boolean(),
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

/** Something the student's side noticed, and how long ago by its own steady clock. */
export const Noticed = z.object({
  kind: z.enum(['left', 'returned']),
  agoMs: z.number().min(0),
});
export type Noticed = z.infer<typeof Noticed>;

export const HandOverRequest = z.object({
  answers: Answers,
  comeBack: Id.array().nullable(),
  /** Which tab it comes from. */
  tabId: Id,
  /** Counts what this tab hands over, upwards: what overtook something else on its way is known by it. */
  sequence: z.number().int().min(0).optional(),
  /** Questions that are done with, where there is no going back. */
  passed: Id.array().max(1000).optional(),
  noticed: Noticed.array().max(500).optional(),
  /** For how long questions were in front of the student since the last time, in ms. */
  timeOnMs: z.record(Id, z.number().min(0)).optional(),
});
export type HandOverRequest = z.infer<typeof HandOverRequest>;

export const PracticeRequest = z.discriminatedUnion('act', [
  z.object({ act: z.literal('try'), response: Response }),
  z.object({ act: z.literal('hint') }),
  z.object({ act: z.literal('show') }),
]);

/** What a question says to an act of practice; null where the attempt is over or not known. */
export const PracticeReply = z.object({ view: PracticeView, status: AttemptStatus }).nullable();
export type PracticeReply = z.infer<typeof PracticeReply>;

export const AskRequest = z.object({ asks: Asks, words: Line, questionId: Id.optional() });
export type AskRequest = z.infer<typeof AskRequest>;

/** A file on its way, with its bytes. */
export const CarriedFile = FileRef.extend({ bytes: z.instanceof(Uint8Array) });
export type CarriedFile = z.infer<typeof CarriedFile>;

/** Whether a file was taken; `tooMuch`: too large, or too many for one attempt. */
export const FileReply = z.enum(['kept', 'tooMuch', 'unknown']);
export type FileReply = z.infer<typeof FileReply>;

/** A join code or an access code as it was typed. */
const Code = z.string().max(40);
const ofAttempt = { joinCode: Code, attemptId: Id };
const ofSitting = { joinCode: Code, sittingId: Id };

/** What each message holds, by name. */
export const requestSchemas = {
  greet: z.object({ joinCode: Code }),
  comeAsGuest: z.object({ name: z.string().max(200), accessCode: Code }),
  home: z.object({ joinCode: Code }),
  start: z.object({ ...ofSitting, accessCode: Code, tabId: Id }),
  handOver: HandOverRequest.extend(ofAttempt),
  present: z.object({ ...ofAttempt, tabId: Id }),
  handOverFile: CarriedFile.extend(ofAttempt),
  file: z.object({ ...ofSitting, fileId: Id }),
  practise: z.object({ ...ofAttempt, questionId: Id, doing: PracticeRequest }),
  ask: z.object({ ...ofSitting, request: AskRequest }),
  handIn: z.object(ofAttempt),
  result: z.object({ ...ofSitting, opening: z.boolean().default(true) }),
  correct: z.object({ ...ofSitting, questionId: Id, response: Response }),
} satisfies Record<MessageName, z.ZodObject>;
