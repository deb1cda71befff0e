import { matrixOf } from '../analysis/seatsMatrix';
import { reliability } from '../analysis/reliability';
import { standardDeviation } from '../analysis/standardDeviation';
import { spread, type SpreadBar } from '../analysis/spread';
import type { Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import type { GradeScale } from '../model/gradeScale';
import { gradeOf } from '../scoring/gradeOf';
import { scoreAttempt, totalShare, type Scorecard } from '../scoring/scoreAttempt';
import { inFigures, isIn, seatsOf, type Seat, type SittingRecords } from '../seats/seats';
import { hasResult } from '../model/release';
import { previewRescore, type RescorePreview } from './rescore';
import type { RepairDraft } from './draft';
import { repairedItems } from './scoredQuestions';

/** One student whose share of the points would be another. */
export interface ShareChange {
  seat: Seat;
  before: number;
  after: number;
}

/** Who would cross a line. */
export interface Crossing {
  /** A share of the points, 0 to 1. */
  line: number;
  up: ShareChange[];
  down: ShareChange[];
}

/** One student who would have another grade. */
export interface GradeChange {
  seat: Seat;
  before: string | null;
  after: string | null;
}

/** What a repair would do to everyone who is in. */
export interface RepairEffect extends RescorePreview {
  /** Those who go up or down, the furthest first. */
  changes: ShareChange[];
  crossings: Crossing[];
  /** Who would have another grade; none where there are no grade lines. */
  grades: GradeChange[];
  /** Standard deviation of the totals, in points; null for fewer than two. */
  deviation: { before: number | null; after: number | null };
  /** Null where it cannot be told. */
  alpha: { before: number | null; after: number | null };
  spread: { before: SpreadBar[]; after: SpreadBar[] };
  /** How many have their results back, and those of them who would see another total. */
  handedBack: { all: number; changed: Seat[] };
  /** Answers to it with points by hand over the key, which stay. */
  overridden: number;
}

/** The questions that a sitting would be scored with. @param at when the repair would be made, as an instant */
export function questionsWith(
  questions: readonly Question[],
  { before, changed, itemId, rule, nobodyLoses }: RepairDraft,
  at: string,
): Question[] {
  const ids = new Set(itemsOf([before]).map(({ id }) => id));
  const now = questions.filter(({ id }) => ids.has(id));
  const next = new Map(
    repairedItems(now, itemsOf([changed ?? before]), { itemId, rule, nobodyLoses, at }).map((item) => [
      item.id,
      item,
    ]),
  );
  return questions.map((question) => next.get(question.id) ?? question);
}

/** The same seats scored with other questions. Who has one attempt alone keeps everything but its scorecard. */
function rescored(
  records: SittingRecords,
  seats: readonly Seat[],
  questions: Question[],
  now: number,
): Seat[] {
  if (seats.some(({ attempt, attemptCount }) => attempt && attemptCount > 1))
    return seatsOf({ ...records, questions }, now);
  return seats.map((seat) =>
    seat.attempt ? { ...seat, scorecard: scoreAttempt(questions, seat.attempt, seat.marks) } : seat,
  );
}

/**
 * What a repair would do. What is shown before it is done is what then is: both are scored the same way.
 *
 * @param lines shares of the points that are looked at, 0 to 1
 * @param at when it would be made, as an instant
 * @param scale the grade lines of the sitting
 */
export function repairEffect(
  records: SittingRecords,
  seats: readonly Seat[],
  draft: RepairDraft,
  lines: readonly number[],
  at: string,
  scale: GradeScale | null = null,
): RepairEffect {
  const questions = questionsWith(records.questions, draft, at);
  const after = rescored(records, seats, questions, Date.parse(at));
  const preview = previewRescore(seats, after);
  const changes: ShareChange[] = [];
  const grades: GradeChange[] = [];
  const handedBack: RepairEffect['handedBack'] = { all: 0, changed: [] };
  let overridden = 0;
  seats.forEach((seat, index) => {
    const next = after[index]?.scorecard;
    if (!isIn(seat) || !seat.scorecard || !next) return;
    if (
      seat.scorecard.awards.some((award) => award.questionId === draft.itemId && award.state === 'overridden')
    )
      overridden++;
    const shares = { before: totalShare(seat.scorecard) ?? 0, after: totalShare(next) ?? 0 };
    const differs = Math.abs(shares.after - shares.before) > 1e-9;
    if (differs) changes.push({ seat, ...shares });
    const grade = ({ total, max }: Scorecard) => scale && gradeOf(scale, { points: total, max });
    const told = { before: grade(seat.scorecard), after: grade(next) };
    if (told.before !== told.after) grades.push({ seat, ...told });
    if (!hasResult(seat.release)) return;
    handedBack.all++;
    if (differs || next.total !== seat.scorecard.total || next.max !== seat.scorecard.max)
      handedBack.changed.push(seat);
  });
  const figures = (of: readonly Seat[], scored: readonly Question[]) => {
    const counted = inFigures(of).filter(isIn);
    return {
      deviation: standardDeviation(counted.flatMap(({ scorecard }) => scorecard?.total ?? [])),
      alpha: reliability(matrixOf(scored, counted))?.alpha ?? null,
      spread: spread(counted.flatMap(({ scorecard }) => (scorecard ? (totalShare(scorecard) ?? []) : []))),
    };
  };
  const [old, next] = [figures(seats, records.questions), figures(after, questions)];
  return {
    ...preview,
    changes: changes.sort((a, b) => Math.abs(b.after - b.before) - Math.abs(a.after - a.before)),
    crossings: lines.map((line) => ({
      line,
      up: changes.filter((each) => each.before < line && each.after >= line),
      down: changes.filter((each) => each.before >= line && each.after < line),
    })),
    grades,
    deviation: { before: old.deviation, after: next.deviation },
    alpha: { before: old.alpha, after: next.alpha },
    spread: { before: old.spread, after: next.spread },
    handedBack,
    overridden,
  };
}
