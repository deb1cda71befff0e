import type { Question } from '@/core/kinds';
import type { HandMark } from '@/core/model/mark';
import { seatsOf, type Seat } from '@/core/seats/seats';
import { at, attemptOf, openQuestion, sittingOf, studentOf } from './samples';

/** Seats that are in, one a text given to a question: "a0" of "s0" and so on. */
export function textSeats(
  texts: readonly string[],
  marks: readonly HandMark[] = [],
  question: Question = openQuestion,
): Seat[] {
  return seatsOf(
    {
      sitting: sittingOf({ closesAt: null, timeLimitMs: null }),
      questions: [question],
      students: texts.map((_, n) => studentOf({ id: `s${n}` })),
      allowances: [],
      attempts: texts.map((text, n) =>
        attemptOf({
          id: `a${n}`,
          studentId: `s${n}`,
          questionIds: [question.id],
          handedInAt: at,
          answers: { [question.id]: { response: { text }, at } },
        }),
      ),
      marks: [...marks],
      releases: [],
      openings: [],
    },
    Date.parse(at) + 1000,
  );
}
