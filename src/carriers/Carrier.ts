import type { DeskEnd } from '@/core/exchange/messageList';

export type { DeskEnd };
export type * from '@/core/exchange/messages';

/**
 * How packets travel between a student and the desk. The student's pages know this and nothing behind it: in the
 * same browser, by hand as files, or over the classroom server. Any call may fail; the caller keeps what it has
 * and asks again.
 */
export interface Carrier extends DeskEnd {
  /** The answers as a file, where the student has to take them to the teacher; null where they get there by themselves. */
  toHand(joinCode: string, sittingId: string): Promise<FileToHand | null>;
}

/** A file that someone is to carry. */
export interface FileToHand {
  /** What it holds, in words that make its name. */
  words: string;
  text: string;
}
