import { countedAnswer } from '../attempts/late';
import { plainText } from '../basics/richWords';
import { numbersOf } from '../kinds/itemNumbers';
import { itemsOf } from '../kinds/items';
import { kindOf, type Question, type Response } from '../kinds';
import { correctionOf, type HandMark } from '../model/mark';
import type { Student } from '../model/people';
import type { Allowance, Attempt, ExceptionRequest, Message } from '../model/sitting';

/** All that a desk holds about one student. Keys and schemes are about papers, and no part of it. */
export interface StudentData {
  student: Student;
  /** By name. */
  groups: string[];
  /** What stands in mark books beside the sittings. */
  typed: { book: string; column: string; points: number | null; excused: boolean }[];
  /** The earliest first. */
  sittings: StudentSitting[];
}

/** What there is of a student in one sitting. */
export interface StudentSitting {
  title: string;
  opensAt: string;
  attempts: AttemptData[];
  /** How many scanned pages there are. */
  pages: number;
  allowances: Allowance[];
  requests: ExceptionRequest[];
  messages: Message[];
  handedBackAt: string | null;
  /** Why a result is held back; null: it is not. */
  heldBack: string | null;
  openedAt: string[];
}

export interface AttemptData {
  attempt: Attempt;
  answers: WrittenAnswer[];
  marks: NumberedMark[];
}

/** One version of what a student answered to a question, in words. */
export interface WrittenAnswer {
  number: string;
  asks: string;
  version: 'counts' | 'earlier' | 'late' | 'correction';
  text: string;
  at: string;
}

/** A mark, with the number of its question; '' where it is about the whole script. */
export type NumberedMark = HandMark & { number: string };

/**
 * An attempt in words: every version of every answer, and the marks.
 *
 * @param questions of the paper as it was sat
 * @param marks of this attempt
 */
export function attemptData(
  attempt: Attempt,
  questions: Parameters<typeof itemsOf>[0],
  marks: readonly HandMark[],
): AttemptData {
  const items = itemsOf(questions);
  const numbers = numbersOf(items);
  const answers = items.flatMap((question) => {
    const written = (
      version: WrittenAnswer['version'],
      ...all: readonly ({ response: Response; at: string } | null | undefined)[]
    ): WrittenAnswer[] =>
      all.flatMap((answer) =>
        answer ? [inWords(question, numbers.get(question.id) ?? '', version, answer)] : [],
      );
    const own = <T extends { questionId: string }>(rows: readonly T[] = []) =>
      rows.filter(({ questionId }) => questionId === question.id);
    return [
      ...written('counts', countedAnswer(attempt, question.id)),
      ...written('earlier', ...own(attempt.earlier)),
      ...written('late', ...own(attempt.late)),
      ...written('correction', attempt.corrections?.[question.id]),
    ];
  });
  const numberOf = new Map(
    items.flatMap(({ id }) => [id, correctionOf(id)].map((of) => [of, numbers.get(id) ?? ''])),
  );
  return {
    attempt,
    answers,
    marks: marks.map((mark) => ({ ...mark, number: numberOf.get(mark.questionId) ?? '' })),
  };
}

const inWords = (
  question: Question,
  number: string,
  version: WrittenAnswer['version'],
  { response, at }: { response: Response; at: string },
): WrittenAnswer => ({
  ...{ number, version, at },
  asks: plainText(question.stem),
  text: kindOf(question).asText(question, response),
});
