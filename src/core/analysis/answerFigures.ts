import { sum, sumBy } from 'remeda';
import { isWritten } from '../attempts/answerFill';
import { countedAnswer } from '../attempts/late';
import { kindOf, type Question } from '../kinds';
import type { Category } from '../kinds/QuestionKind';
import { schemeOf } from '../marking/scheme';
import { marksThatCount } from '../scoring/marksThatCount';
import type { Award } from '../scoring/scoreAttempt';
import type { Seat } from '../seats/seats';
import { correlation, pointBiserial } from './correlation';
import { mean } from './mean';
import { quantile } from './quantile';
import { partsByRest } from './upperLower';

/** One row of what was answered, and by whom. */
export interface CategoryFigures extends Category {
  count: number;
  /** How many of the weakest, the middle and the strongest third, by the rest of their points. */
  thirds: [number, number, number];
  /** Of answering so with the points for all other questions, −1 to 1; null where it cannot be told. */
  correlation: number | null;
  /** The mean and the sum of squares of the points that those who answered so have for all other questions. */
  rest: { mean: number; squares: number };
  /** How many of them come near to an accepted answer: put forward, and no points yet by hand. */
  near: number;
  studentIds: string[];
}

/** One thing that a question of several asks: a gap, an item. */
export interface PartFigures {
  id: string;
  label: string;
  /** Share of what it gives, over all who were given the question. */
  facility: number;
  /** With the points for all other questions. */
  correlation: number | null;
}

/** A line of the scheme, over the answers that were marked. */
export interface LineFigures {
  id: string;
  text: string;
  met: number;
  marked: number;
  /** Of meeting it with the points for all other questions. */
  correlation: number | null;
}

/** What was answered to one question. */
export interface AnswerFigures {
  /** What the question offers in its own order, then what students came up with, commonest first. */
  categories: CategoryFigures[];
  blank: number;
  /** How many were given it in each third. */
  thirds: [number, number, number];
  /** Mean share of the points in each fifth of the class by the rest, weakest first; null where a fifth has none. */
  fifths: (number | null)[];
  parts: PartFigures[];
  lines: LineFigures[];
  /** Answers that would have had more but for their form. */
  formOnly: number;
  /** Seconds in front of it: quartiles; null where that is not known. */
  seconds: { low: number; middle: number; high: number; known: number } | null;
  /** How many have how many points, least first. */
  points: { points: number; count: number }[];
  /** How many have their points by the key alone. */
  byKey: number;
}

interface Row {
  seat: Seat;
  award: Award;
  rest: number;
}

/**
 * What was answered to a question, by thirds of the class and with the correlation to the rest of the points.
 *
 * @param seats of students who are in
 */
export function answerFigures(question: Question, seats: readonly Seat[]): AnswerFigures {
  const rows = rowsOf(question, seats);
  const rest = rows.map((row) => row.rest);
  const third = partsByRest(rest, 3);
  const { said, shares, blank, formOnly } = given(question, rows);
  const whole = spreadOf(rest);
  const categories = said.map((each) => categoryFigures(each, rows, rest, whole, third));
  const others = categories.filter(({ offered }) => !offered).sort((a, b) => b.count - a.count);
  return {
    categories: [...categories.filter(({ offered }) => offered), ...others],
    blank,
    thirds: inThirds(
      rows.map((_, row) => row),
      third,
    ),
    fifths: fifthsOf(rows),
    parts: [...shares].map(([id, { label, of }]) => ({
      id,
      label,
      facility: sum(of) / Math.max(1, of.length),
      correlation: correlation(of, rest),
    })),
    lines: lineFigures(question, rows),
    formOnly,
    seconds: secondsOf(question, rows),
    points: pointsSpread(rows),
    byKey: rows.filter(({ award }) => award.state === 'byKey' || award.state === 'notAnswered').length,
  };
}

/** Everyone who was given the question. What is not read yet is in no figure, and in nothing that figures are shares of. */
const rowsOf = (question: Question, seats: readonly Seat[]): Row[] =>
  seats.flatMap((seat) => {
    const award = seat.scorecard?.awards.find(({ questionId }) => questionId === question.id);
    return award && seat.scorecard && award.state !== 'notRead'
      ? [{ seat, award, rest: seat.scorecard.total - (award.points ?? 0) }]
      : [];
  });

/** A category, and the rows whose answers are of it. */
interface Said {
  is: Category;
  rows: number[];
}

interface Given {
  /** What is offered first, then what else was said as it was met. */
  said: Said[];
  /** Of each part the share that each row has of it. */
  shares: Map<string, { label: string; of: number[] }>;
  blank: number;
  formOnly: number;
}

/** Which rows gave which answers. */
function given(question: Question, rows: readonly Row[]): Given {
  const kind = kindOf(question);
  const said = new Map<string, Said>(kind.offered(question).map((is) => [is.id, { is, rows: [] }]));
  const shares: Given['shares'] = new Map();
  let [blank, formOnly] = [0, 0];
  rows.forEach(({ seat, award }, row) => {
    const answer = seat.attempt ? countedAnswer(seat.attempt, question.id) : undefined;
    // What is on paper and not typed is no answer of any category, and not blank either.
    if (!answer || kind.isBlank(answer.response)) {
      if (!isWritten(answer)) blank++;
      return;
    }
    for (const is of kind.categoriesOf(question, answer.response)) {
      const entry = said.get(is.id) ?? { is, rows: [] };
      said.set(is.id, entry);
      if (entry.rows.at(-1) !== row) entry.rows.push(row);
      if (!is.part) continue;
      const part = shares.get(is.part.id) ?? { label: is.part.label, of: rows.map(() => 0) };
      shares.set(is.part.id, part);
      part.of[row] = is.share ?? 0;
    }
    if (award.points !== null && award.points < award.max && kind.formOnly?.(question, answer.response))
      formOnly++;
  });
  return { said: [...said.values()], shares, blank, formOnly };
}

function categoryFigures(
  { is, rows: of }: Said,
  rows: readonly Row[],
  rest: readonly number[],
  whole: CategoryFigures['rest'],
  third: ReturnType<typeof partsByRest>,
): CategoryFigures {
  return {
    ...is,
    count: of.length,
    thirds: inThirds(of, third),
    correlation: pointBiserial(of, rest, whole),
    rest: spreadOf(of.map((row) => rest[row] ?? 0)),
    near: of.filter((row) => rows[row]?.award.nearMiss != null).length,
    studentIds: of.flatMap((row) => rows[row]?.seat.student.id ?? []),
  };
}

function spreadOf(values: readonly number[]): CategoryFigures['rest'] {
  const centre = values.length === 0 ? 0 : mean(values);
  return { mean: centre, squares: sumBy(values, (value) => (value - centre) ** 2) };
}

function inThirds(rows: readonly number[], third: readonly number[]): [number, number, number] {
  const counts: [number, number, number] = [0, 0, 0];
  for (const row of rows) {
    const at = third[row] as 0 | 1 | 2; // parts of three
    counts[at]++;
  }
  return counts;
}

function fifthsOf(rows: readonly Row[]): (number | null)[] {
  const scored = rows.filter(({ award }) => award.points !== null && award.max > 0);
  const part = partsByRest(
    scored.map(({ rest }) => rest),
    5,
  );
  return [0, 1, 2, 3, 4].map((fifth) => {
    const of = scored.filter((_, row) => part[row] === fifth);
    return of.length === 0 ? null : mean(of.map(({ award }) => (award.points ?? 0) / award.max));
  });
}

function lineFigures(question: Question, rows: readonly Row[]): LineFigures[] {
  const lines = kindOf(question).scoredBy === 'hand' ? schemeOf(question) : [];
  if (lines.length === 0) return [];
  const marked = rows.flatMap(({ seat, rest }) => {
    const mark = marksThatCount(seat.marks).get(question.id);
    return mark && mark.points !== null ? [{ met: new Set(mark.lines), rest }] : [];
  });
  // Where points were typed without lines, nothing is known of any line.
  const byLines = marked.filter(({ met }) => met.size > 0).length;
  if (byLines === 0) return [];
  const rest = marked.map((each) => each.rest);
  return lines.map(({ id, text }) => ({
    id,
    text,
    met: marked.filter(({ met }) => met.has(id)).length,
    marked: marked.length,
    correlation: correlation(
      marked.map(({ met }) => Number(met.has(id))),
      rest,
    ),
  }));
}

function secondsOf({ id }: Question, rows: readonly Row[]): AnswerFigures['seconds'] {
  const known = rows.flatMap(({ seat }) => {
    const ms = seat.attempt?.timeOnMs?.[id];
    return ms === undefined ? [] : [ms / 1000];
  });
  if (known.length === 0) return null;
  const [low, middle, high] = [0.25, 0.5, 0.75].map((p) => quantile(known, p));
  return { low: low ?? 0, middle: middle ?? 0, high: high ?? 0, known: known.length };
}

function pointsSpread(rows: readonly Row[]): AnswerFigures['points'] {
  const counts = new Map<number, number>();
  for (const { award } of rows)
    if (award.points !== null) counts.set(award.points, (counts.get(award.points) ?? 0) + 1);
  return [...counts].map(([points, count]) => ({ points, count })).sort((a, b) => a.points - b.points);
}
