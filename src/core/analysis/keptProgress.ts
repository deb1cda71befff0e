import type { Question } from '../kinds';
import { progressFrom, type SittingProgress } from '../seats/progress';
import { counts } from '../scoring/counts';
import type { PointsTable } from '../scoring/pointsTable';
import { seatsOf, type SittingRecords } from '../seats/seats';
import { tableOf } from '../seats/tableOf';
import { discrimination } from './discrimination';
import { facility } from './facility';

/** How one question did in a sitting. */
export interface KeptFigures {
  questionId: string;
  /** How many answers have points. */
  scored: number;
  facility: number | null;
  discrimination: number | null;
}

/** Facility and discrimination of each question, over the students who are in and have points for it. */
export function keptFigures(questions: readonly Question[], table: PointsTable): KeptFigures[] {
  return questions.map((question) => {
    const { id, points: max } = question;
    const { points, totals } = counts(question) ? table.columnOf(id) : { points: [], totals: [] };
    return {
      questionId: id,
      scored: points.length,
      facility: facility(points, max),
      discrimination: discrimination(points, totals),
    };
  });
}

/** How a sitting stands with the figures of its questions: what the desk keeps of it. */
export interface KeptProgress extends SittingProgress {
  questions: KeptFigures[];
}

export function keptProgress(records: SittingRecords, now: number): KeptProgress {
  const seats = seatsOf(records, now);
  return {
    ...progressFrom(records.sitting, seats, now),
    questions: keptFigures(records.questions, tableOf(records.questions, seats)),
  };
}
