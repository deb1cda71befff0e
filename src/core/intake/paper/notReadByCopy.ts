import type { Question } from '../../kinds';
import { scoreAttempt } from '../../scoring/scoreAttempt';
import type { Seat } from '../../seats/seats';

/** One copy of one print, as a key. */
export const copyKey = (printId: string, copy: number): string => `${printId} ${copy}`;

/** How many answers of each copy are not read yet, as their scorecards tell it; copies without an attempt are not in it. */
export const notReadByCopy = (questions: readonly Question[], seats: readonly Seat[]): Map<string, number> =>
  new Map(
    seats.flatMap(({ toMark }) =>
      toMark.flatMap(({ attempt, marks }) =>
        attempt.copy
          ? [
              [
                copyKey(attempt.copy.printId, attempt.copy.number),
                scoreAttempt(questions, attempt, marks).notRead,
              ] as const,
            ]
          : [],
      ),
    ),
  );
