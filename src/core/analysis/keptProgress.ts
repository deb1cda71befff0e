import type { Question } from '../kinds';
import { progressFrom, type SittingProgress } from '../seats/progress';
import { inFigures, isIn, seatsOf, type Seat, type SittingRecords } from '../seats/seats';
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

/** Facility and discrimination of each question, over those who are in and have points for it, without guests. */
export function keptFigures(questions: readonly Question[], seats: readonly Seat[]): KeptFigures[] {
  const cards = inFigures(seats)
    .filter(isIn)
    .flatMap((seat) => seat.scorecard ?? []);
  return questions.map(({ id, points: max }) => {
    const points: number[] = [];
    const totals: number[] = [];
    for (const card of cards) {
      const award = card.awards.find((each) => each.questionId === id);
      if (!award || award.points === null) continue;
      points.push(award.points);
      totals.push(card.total);
    }
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
    questions: keptFigures(records.questions, seats),
  };
}
