import type { Response } from '../kinds';
import type { PracticeAct } from '../attempts/practice';
import type {
  AskRequest,
  AttemptStatus,
  CarriedFile,
  FileReply,
  Greeting,
  HandOverRequest,
  HomeSitting,
  PracticeReply,
  ResultReply,
  StartReply,
} from './messages';

/**
 * What a student's side says to the desk, and what it is told: each message once. Carriers, worker and endpoints are made
 * from this list; what a message holds is checked by `requestSchemas`, and `answers` has what is replied.
 */
export interface DeskEnd {
  /** Who this join code belongs to; null when to nobody. */
  greet(joinCode: string): Promise<Greeting | null>;
  /** Comes in on no list, with a typed name and the access code of a sitting; null when the code opens none. */
  comeAsGuest(name: string, accessCode: string): Promise<Greeting | null>;
  /** The student's sittings, newest first. */
  home(joinCode: string): Promise<HomeSitting[]>;
  /** Begins an attempt, or goes on with the one that runs; from then on it is in this tab. */
  start(joinCode: string, sittingId: string, accessCode: string, tabId: string): Promise<StartReply>;
  /** Hands answers over as they are typed. Null when the attempt is not known. */
  handOver(joinCode: string, attemptId: string, request: HandOverRequest): Promise<AttemptStatus | null>;
  /** A sign of life: nothing changes by it. Null when the attempt is not known. */
  present(joinCode: string, attemptId: string, tabId: string): Promise<AttemptStatus | null>;
  /** Hands over a file that an answer names; it goes before that answer. */
  handOverFile(joinCode: string, attemptId: string, file: CarriedFile): Promise<FileReply>;
  /** A picture of the paper, or a file of one's own answers; null when it is not this student's to see. */
  file(joinCode: string, sittingId: string, fileId: string): Promise<CarriedFile | null>;
  /** One act of practice: a try, a hint, or giving up. */
  practise(
    joinCode: string,
    attemptId: string,
    questionId: string,
    doing: PracticeAct,
  ): Promise<PracticeReply>;
  /** Asks for an exception; false when it could not be taken: one waits already. */
  ask(joinCode: string, sittingId: string, request: AskRequest): Promise<boolean>;
  handIn(joinCode: string, attemptId: string): Promise<AttemptStatus | null>;
  /**
   * What has been let out of the result; null while nothing has.
   *
   * @param opening whether the student looks at it now, and not just the page again: that is noted
   */
  result(joinCode: string, sittingId: string, opening?: boolean): Promise<ResultReply>;
  /** Answers a missed question again, where that is invited; false where it could not be taken. */
  correct(joinCode: string, sittingId: string, questionId: string, response: Response): Promise<boolean>;
}

export type MessageName = keyof DeskEnd;

/** The most that a message without answers or files may hold, in bytes; those with answers; a file in Base64. */
const small = 16 * 1024;
const answers = 8 * 1024 * 1024;
const file = 14 * 1024 * 1024;

interface Message {
  /** Under `/api/exchange`. */
  path: string;
  /** Who may say it: anyone with a code that somebody has, or whoever holds the token of the attempt. */
  role: 'anyone' | 'student';
  /** What it holds, in order; of one that begins with dots, the fields. */
  holds: readonly string[];
  /** Bytes. */
  most: number;
}

export const messageList: Readonly<Record<MessageName, Message>> = {
  greet: { path: '/greet', role: 'anyone', holds: ['joinCode'], most: small },
  comeAsGuest: { path: '/guest', role: 'anyone', holds: ['name', 'accessCode'], most: small },
  home: { path: '/home', role: 'anyone', holds: ['joinCode'], most: small },
  start: {
    path: '/start',
    role: 'anyone',
    holds: ['joinCode', 'sittingId', 'accessCode', 'tabId'],
    most: small,
  },
  handOver: {
    path: '/attempts/:attemptId/answers',
    role: 'student',
    holds: ['joinCode', 'attemptId', '...request'],
    most: answers,
  },
  present: {
    path: '/attempts/:attemptId/present',
    role: 'student',
    holds: ['joinCode', 'attemptId', 'tabId'],
    most: small,
  },
  handOverFile: {
    path: '/attempts/:attemptId/files',
    role: 'student',
    holds: ['joinCode', 'attemptId', '...file'],
    most: file,
  },
  file: { path: '/file', role: 'anyone', holds: ['joinCode', 'sittingId', 'fileId'], most: small },
  practise: {
    path: '/attempts/:attemptId/practice',
    role: 'student',
    holds: ['joinCode', 'attemptId', 'questionId', 'doing'],
    most: answers,
  },
  ask: { path: '/ask', role: 'anyone', holds: ['joinCode', 'sittingId', 'request'], most: small },
  handIn: {
    path: '/attempts/:attemptId/hand-in',
    role: 'student',
    holds: ['joinCode', 'attemptId'],
    most: small,
  },
  result: { path: '/result', role: 'anyone', holds: ['joinCode', 'sittingId', 'opening'], most: small },
  correct: {
    path: '/correct',
    role: 'anyone',
    holds: ['joinCode', 'sittingId', 'questionId', 'response'],
    most: answers,
  },
};

export const messageNames = Object.keys(messageList) as MessageName[]; // the keys of a literal object are its names

/** What a message holds, by name. */
export function heldBy(name: MessageName, said: readonly unknown[]): Record<string, unknown> {
  const named: Record<string, unknown> = {};
  for (const [place, field] of messageList[name].holds.entries())
    if (field.startsWith('...')) Object.assign(named, said[place]);
    else if (said[place] !== undefined) named[field] = said[place];
  return named;
}

/** What a message holds, in order: the other way round. */
export function saidIn(name: MessageName, named: Readonly<Record<string, unknown>>): unknown[] {
  const { holds } = messageList[name];
  return holds.map((field) =>
    field.startsWith('...')
      ? Object.fromEntries(Object.entries(named).filter(([other]) => !holds.includes(other)))
      : named[field],
  );
}

/** Says a message, and hears what is replied. */
export type Ask = (name: MessageName, said: unknown[]) => Promise<unknown>;

/** The desk's end, each message asked the same way. */
export function askedBy(ask: Ask): DeskEnd {
  const each = messageNames.map((name) => [name, (...said: unknown[]) => ask(name, said)] as const);
  return Object.fromEntries(each) as unknown as DeskEnd; // a method for every name, as the list has them
}
