import { answerFill } from '../attempts/answerFill';
import { countedAnswer } from '../attempts/late';
import type { Question } from '../kinds';
import { numbersOf } from '../kinds/itemNumbers';
import { isIn, type Seat } from '../seats/seats';
import { PointsTable } from '../scoring/pointsTable';
import { counts } from '../scoring/counts';
import { totalShare } from '../scoring/scoreAttempt';
import { facility } from './facility';
import { mean } from './mean';
import { quantile } from './quantile';
import { spread, type SpreadBar } from './spread';
import { standardDeviation } from './standardDeviation';

export interface TotalFigures {
  /** How many attempts are in: what every figure is computed from. */
  n: number;
  /** In points. */
  mean: number;
  median: number;
  /** A quarter of the totals lies below the first, a quarter above the second. */
  quartiles: [number, number];
  lowest: number;
  highest: number;
  /** Null for fewer than two. */
  standardDeviation: number | null;
  /** Mean of everyone's share of the points, of what has points so far, 0 to 1. */
  meanShare: number;
  /** Points to be had. */
  max: number;
  spread: SpreadBar[];
  /** How many of them are not wholly marked: the figures are not final while there are any. */
  unfinished: number;
}

export interface QuestionFigures {
  question: Question;
  /** As on the paper: "3", or "3 w" for its working. */
  number: string;
  /** How many were given it, how many of those have points. */
  given: number;
  scored: number;
  blank: number;
  /** Of those that have points; null while none has. */
  facility: number | null;
  meanPoints: number | null;
}

/** Totals of everyone who is in; null when nobody is. */
export function totalFigures(seats: readonly Seat[]): TotalFigures | null {
  const cards = seats.filter(isIn).flatMap((seat) => seat.scorecard ?? []);
  if (cards.length === 0) return null;
  const totals = cards.map((card) => card.total);
  const shares = cards.flatMap((card) => totalShare(card) ?? []);
  if (shares.length === 0) return null;
  return {
    n: totals.length,
    mean: mean(totals),
    median: quantile(totals, 0.5),
    quartiles: [quantile(totals, 0.25), quantile(totals, 0.75)],
    lowest: quantile(totals, 0),
    highest: quantile(totals, 1),
    standardDeviation: standardDeviation(totals),
    meanShare: mean(shares),
    max: Math.max(...cards.map((card) => card.max)),
    spread: spread(shares),
    unfinished: cards.filter((card) => !card.final).length,
  };
}

/** Figures of every question, in the order of the paper; over the seats that are given, of whomever. */
export function questionFigures(questions: readonly Question[], seats: readonly Seat[]): QuestionFigures[] {
  const inSeats = seats.filter(isIn);
  const table = new PointsTable(questions);
  inSeats.forEach(({ scorecard }, row) => table.put(row, 'student', scorecard));
  const numbers = numbersOf(questions);
  return questions.map((question) => figuresOf(question, numbers.get(question.id) ?? '', table, inSeats));
}

/** Most missed first; questions without figures last; the order they come in where equal. */
export function mostMissedFirst<F extends QuestionFigures>(figures: readonly F[]): F[] {
  return [...figures].sort((a, b) => (a.facility ?? 2) - (b.facility ?? 2));
}

/** Students who are in with less than `line` of the points, lowest first. */
export function studentsUnder(seats: readonly Seat[], line: number): Seat[] {
  const share = (seat: Seat) => (seat.scorecard && totalShare(seat.scorecard)) ?? 1;
  return seats.filter((seat) => isIn(seat) && share(seat) < line).sort((a, b) => share(a) - share(b));
}

function figuresOf(
  question: Question,
  number: string,
  table: PointsTable,
  seats: readonly Seat[],
): QuestionFigures {
  // What does not count is neither easy nor hard.
  const points = counts(question) ? table.columnOf(question.id).points : [];
  const { given } = table.countsOf(question.id);
  return {
    question,
    number,
    given,
    scored: points.length,
    blank: blankOf(question, table, seats),
    facility: facility(points, question.points),
    meanPoints: points.length ? mean(points) : null,
  };
}

/** How many were given a question and left it blank; of what is not read yet nobody knows. */
function blankOf(question: Question, table: PointsTable, seats: readonly Seat[]): number {
  let blank = 0;
  for (const [row, { attempt }] of seats.entries()) {
    if (!attempt || !table.isGiven(row, question.id)) continue;
    const answer = countedAnswer(attempt, question.id);
    if (attempt.unread?.[question.id] === undefined && answerFill(question, answer) === 'open') blank++;
  }
  return blank;
}
