import { z } from 'zod';
import { Response } from '../kinds';
import { Shows } from './release';
import { Id, Instant, Line, Text } from '../basics/common';
import { FileRef } from '../basics/file';
import { Rect } from '../basics/rect';

/** Which of several attempts counts. */
export const CountRule = z.enum(['last', 'best', 'first', 'mean']);
export type CountRule = z.infer<typeof CountRule>;

/** Practice: each question says at once how it was answered. */
export const PracticeRules = z.object({
  /** How often one question may be tried; null: as often as wanted. */
  tries: z.number().int().min(1).max(20).nullable(),
  /** Share of the points that each try after the first takes off. */
  lossPerTry: z.number().min(0).max(1),
  hints: z.boolean(),
  /** Whether the accepted answer can be shown after giving up, or once no try is left. */
  showAnswer: z.boolean(),
});
export type PracticeRules = z.infer<typeof PracticeRules>;

/** How a paper is sat: what a template keeps. */
export const SittingManner = z.object({
  /** One question at a time instead of all at once. */
  oneByOne: z.boolean().optional(),
  /** One by one, and what is done cannot be gone back to. */
  noBack: z.boolean().optional(),
  /** Each student gets the questions in an order of their own, within each part. */
  shuffle: z.boolean().optional(),
  /** What is seen straight after handing in; absent: nothing. */
  after: Shows.optional(),
  /** For how long after it, ms; absent: until results are handed back. */
  afterMs: z.number().int().positive().max(31_622_400_000).optional(),
  /** Absent: it is no practice. */
  practice: PracticeRules.optional(),
  /** For how long after the end what was typed before it still counts, ms: for broken connections. Absent: the teacher decides. */
  forgivenMs: z.number().int().positive().max(86_400_000).optional(),
});
export type SittingManner = z.infer<typeof SittingManner>;

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
  ...SittingManner.shape,
  /** Whether someone on no list may come in with the access code and a typed name. */
  guests: z.boolean().optional(),
  /** Students come in on their own devices, over the classroom server. */
  onDevices: z.boolean().optional(),
  /** A made-up class sits it, to try it out; it is taken away whole. */
  rehearsal: z.boolean().optional(),
  /** A share of marking that was given to this desk: it is marked, and nothing else. */
  share: z.boolean().optional(),
  /** From then on nobody new may start; null: open to new starts. */
  closedToStartsAt: Instant.nullable(),
  /** What it belongs to, if the teacher says so; absent: what its groups belong to. */
  course: Line.optional(),
  term: Line.optional(),
  /** Since when it no longer lies on the desk; it is kept, and found. */
  archivedAt: Instant.optional(),
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

/** What one student may have in one sitting beyond its rules, without what every allowance has. */
export type AllowanceWish =
  | { kind: 'minutes'; minutes: number }
  | { kind: 'percent'; percent: number }
  | { kind: 'window'; opensAt: string | null; closesAt: string | null }
  | { kind: 'lateStart' };

/** Which typing an answer is, and what its student had in view when typing (see `core/attempts/versions`). */
export const Stamp = z.object({
  /** One device typing on and on in one answer. */
  line: Id,
  /** Its place in that line. */
  n: z.number().int().min(0),
  /** By line, up to where it was known; its own place among them. */
  knows: z
    .record(Id, z.number().int().min(0))
    .refine((lines) => Object.keys(lines).length <= 1_000, { error: 'at most 1,000 lines' }),
});
export type Stamp = z.infer<typeof Stamp>;

/** A place on a scanned page where an answer, or a part of it, stands. */
export const AnswerPicture = z.object({
  /** The picture of the page, set straight. */
  fileId: Id,
  /** In mm on the page, from its upper left corner. */
  at: Rect,
  /** There is no ink in it. */
  empty: z.literal(true).optional(),
  /** It shows boxes, which are read: whether there is ink says nothing. */
  boxes: z.literal(true).optional(),
});
export type AnswerPicture = z.infer<typeof AnswerPicture>;

/** Why an answer on paper is not read yet, which is neither wrong nor blank. */
export const NotRead = z.enum([
  /** A page it stands on was not scanned. */
  'pageMissing',
  /** What stands in a box only a person can say; or the one ticked box of a row was filled. */
  'doubtful',
  /** Two scans of its page say different things. */
  'scansDiffer',
  /** More is ticked than can be an answer. */
  'tooManyTicks',
  /** It is written by hand, and nobody has typed or marked it. */
  'written',
]);
export type NotRead = z.infer<typeof NotRead>;

/** One student's response to one question, with when it was last changed. */
export const Answer = z.object({
  response: Response,
  at: Instant,
  stamp: Stamp.optional(),
  /** Where it stands on paper, in order. */
  pictures: AnswerPicture.array().max(20).optional(),
  /** Typed by the teacher from what stands on paper. */
  typed: z.literal(true).optional(),
});
export type Answer = z.infer<typeof Answer>;

/** A version of an answer that does not count: replaced, or typed without knowing of the one that counts. */
export const EarlierAnswer = Answer.extend({ questionId: Id });
export type EarlierAnswer = z.infer<typeof EarlierAnswer>;

/** An answer that came after the end; `at` is when it came. */
export const LateAnswer = Answer.extend({
  questionId: Id,
  /** When it was typed, as its device says. */
  typedAt: Instant,
  /** Null while nobody has decided; `by` the rule of the sitting, or the teacher. */
  decision: z
    .object({ counts: z.boolean(), by: z.enum(['rule', 'teacher']), reason: Line, at: Instant })
    .nullable(),
});
export type LateAnswer = z.infer<typeof LateAnswer>;

/** Answers by question id. */
export const Answers = z.record(Id, Answer);
export type Answers = z.infer<typeof Answers>;

export const AttemptEvent = z.object({
  kind: z.enum([
    'started',
    'cameBack',
    'handedIn',
    'collected',
    'carriedOn',
    'setAside',
    'takenBack',
    'answered',
    'left',
    'returned',
    'tried',
    'hinted',
    'shown',
    'broughtIn',
  ]),
  at: Instant,
  reason: Line.optional(),
  /** The question it was about. */
  questionId: Id.optional(),
});
export type AttemptEvent = z.infer<typeof AttemptEvent>;

/** More than that are not kept of one attempt: what the student's side reports cannot fill the desk. */
export const mostEvents = 3000;

/** What was done with one question in practice. */
export const PracticeRecord = z.object({
  /** Each try that was scored at once, with how many hints had been taken before it. */
  tries: z
    .object({ response: Response, at: Instant, hints: z.number().int().min(0) })
    .array()
    .max(200),
  /** The hints that were taken, by id, in order. */
  hints: Id.array(),
  /** Whether the accepted answer was shown: from then on nothing more is to be had. */
  shown: z.boolean(),
});
export type PracticeRecord = z.infer<typeof PracticeRecord>;

/** A missed question answered again after handing back, where that was invited. The old answer stays. */
export const Correction = z.object({
  response: Response,
  at: Instant,
  /** Share of the points missing that it can win back, as the invitation said then. */
  share: z.number().min(0).max(1),
});
export type Correction = z.infer<typeof Correction>;

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
  /** Versions of answers that do not count, in the order in which they came. */
  earlier: EarlierAnswer.array().optional(),
  /** What came after the end. */
  late: LateAnswer.array().optional(),
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
  /** Where its answers came from; absent: it was sat here. */
  source: z.enum(['sheet', 'paper']).optional(),
  /** From paper: which copy of which print it is. */
  copy: z.object({ printId: Id, number: z.number().int().min(1) }).optional(),
  /** From paper: by question, why its answer is not read yet. */
  unread: z.record(Id, NotRead).optional(),
  /** Since when it does not count; absent or null: it does. */
  setAsideAt: Instant.nullable().optional(),
  /** The files that came with the answers. */
  files: FileRef.array().optional(),
  /** Questions that are done with, where there is no going back. */
  passed: Id.array().optional(),
  /** By question, where it is practice. */
  practice: z.object({ lossPerTry: z.number(), records: z.record(Id, PracticeRecord) }).optional(),
  /** The tab it goes on in, and since when: another one has it no longer. */
  tab: z
    .object({
      id: Id,
      since: Instant,
      /** Of what that tab handed over, the last that was taken: what was sent before it and comes late is old. */
      sequence: z.number().int().optional(),
    })
    .optional(),
  /** By question. */
  corrections: z.record(Id, Correction).optional(),
  /** How long each question was in front of the student, in ms, as the student's side saw it. */
  timeOnMs: z.record(Id, z.number().min(0)).optional(),
});
export type Attempt = z.infer<typeof Attempt>;

/** What a student asks for. */
export const Asks = z.enum(['moreTime', 'otherTimes', 'anotherAttempt', 'carryOn', 'other', 'mark']);
export type Asks = z.infer<typeof Asks>;

/** A student asks for an exception, and what the teacher said to it. */
export const ExceptionRequest = z.object({
  id: Id,
  sittingId: Id,
  studentId: Id,
  asks: Asks,
  /** The question whose mark it is about. */
  questionId: Id.optional(),
  /** Why, in the student's words. */
  words: Line,
  at: Instant,
  /** Null while it waits. */
  answer: z.object({ granted: z.boolean(), words: Line, at: Instant }).nullable(),
});
export type ExceptionRequest = z.infer<typeof ExceptionRequest>;

/** A message to a student, on its way. */
export const Message = z.object({
  id: Id,
  sittingId: Id,
  studentId: Id,
  email: Line,
  subject: Line,
  text: Text,
  at: Instant,
  /** Where it is; absent: it waits in the outbox. */
  state: z
    .object({
      /** By the server; `passedOn`: saved as a file, or opened in the teacher's own mail program. */
      is: z.enum(['queued', 'sending', 'sent', 'failed', 'bounced', 'unsure', 'passedOn']),
      at: Instant,
      words: z.string().max(500),
    })
    .optional(),
});
export type Message = z.infer<typeof Message>;

/** Whether a message still has to go somewhere. */
export const waitsInOutbox = ({ state }: Pick<Message, 'state'>): boolean => state === undefined;

/** The wording of a message, kept to be used again. */
export const MessageTemplate = z.object({ id: Id, name: Line.min(1), subject: Line, text: Text });
export type MessageTemplate = z.infer<typeof MessageTemplate>;

/** Settings of a sitting kept for use again. */
export const SittingTemplate = SittingManner.extend({
  id: Id,
  name: Line.min(1),
  timeLimitMs: z.number().int().positive().nullable(),
  attempts: z.number().int().min(1).max(50),
  counts: CountRule,
});
export type SittingTemplate = z.infer<typeof SittingTemplate>;
