import { sumBy } from 'remeda';
import type { Question } from '../kinds';
import { numbersOf } from '../kinds/itemNumbers';
import type { Sitting } from '../model/sitting';
import { isIn, seatsOf, type SittingRecords } from '../seats/seats';
import { awaitsMarker, sameAnswers } from './sameAnswers';

/** Answers to one question of a sitting that want a marker. */
export interface WaitingAnswers {
  sitting: Sitting;
  question: Question;
  /** As on the paper: "10". */
  number: string;
  /** How many answers wait for a mark, and how many different ones. */
  waiting: number;
  different: number;
  /** How many the key scored, but are put forward as nearly right. */
  putForward: number;
  /** When the first of those was handed in or collected, ISO; null where that is not known. */
  oldest: string | null;
}

/** Every question of a sitting in which answers of those who are in wait, or are put forward; in the order of the paper. */
export function whatWaits(records: SittingRecords, now: number): WaitingAnswers[] {
  const seats = seatsOf(records, now).filter(isIn);
  const since = new Map(
    seats.flatMap(({ toMark }) =>
      toMark.map(({ attempt }) => [attempt.id, attempt.handedInAt ?? attempt.collectedAt] as const),
    ),
  );
  const numbers = numbersOf(records.questions);
  return records.questions.flatMap((question): WaitingAnswers[] => {
    const wanting = sameAnswers(question, seats).filter(
      ({ waiting, nearMiss }) => waiting > 0 || nearMiss !== null,
    );
    if (wanting.length === 0) return [];
    const waits = wanting.filter(({ waiting }) => waiting > 0);
    const ended = wanting.flatMap(({ answers }) =>
      answers
        .filter(({ award }) => awaitsMarker(award) || award.nearMiss !== null)
        .flatMap(({ attemptId }) => since.get(attemptId) ?? []),
    );
    return [
      {
        sitting: records.sitting,
        question,
        number: numbers.get(question.id) ?? '',
        waiting: sumBy(waits, ({ waiting }) => waiting),
        different: waits.length,
        putForward: sumBy(
          wanting,
          ({ answers }) => answers.filter(({ award }) => award.nearMiss !== null).length,
        ),
        oldest: ended.length > 0 ? ended.reduce((a, b) => (a < b ? a : b)) : null,
      },
    ];
  });
}
