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
} from '@/core/exchange/messages';
import type { PracticeAct } from '@/core/attempts/practice';

export type * from '@/core/exchange/messages';

/**
 * How packets travel between a student and the desk. The student's pages know this and nothing behind it: in the
 * same browser, by hand as files, or over the classroom server. Any call may fail; the caller keeps what it has
 * and asks again.
 */
export interface Carrier {
  /** Who this join code belongs to; null when to nobody. */
  greet(joinCode: string): Promise<Greeting | null>;
  /** Comes in on no list, with a typed name and the access code of a sitting; null when the code opens none. */
  comeAsGuest(name: string, accessCode: string): Promise<Greeting | null>;
  /** The student's sittings, newest first. */
  home(joinCode: string): Promise<HomeSitting[]>;
  /** Begins an attempt, or goes on with the one that runs; from then on it is in this tab. */
  start(joinCode: string, sittingId: string, accessCode: string, tabId: string): Promise<StartReply>;
  /** Hands answers over as they are typed; with none, a sign of life. Null when the attempt is not known. */
  handOver(joinCode: string, attemptId: string, request: HandOverRequest): Promise<AttemptStatus | null>;
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
  /** The answers as a file, where the student has to take them to the teacher; null where they get there by themselves. */
  toHand(joinCode: string, sittingId: string): Promise<FileToHand | null>;
}

/** A file that someone is to carry. */
export interface FileToHand {
  /** What it holds, in words that make its name. */
  words: string;
  text: string;
}

/** The desk's end of a carrier in the same browser: nothing is carried by hand there. */
export type DeskEnd = Omit<Carrier, 'toHand'>;
