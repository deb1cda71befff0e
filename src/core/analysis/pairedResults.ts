import type { Question } from '../kinds';
import type { Student } from '../model/people';
import { totalShare } from '../scoring/scoreAttempt';
import { inFigures, isIn, type Seat } from '../seats/seats';
import { partShare } from './subgroups';

/** One student’s results in two sittings, as shares of the points. */
export interface PairedResult {
  student: Student;
  before: number;
  after: number;
}

/** One sitting, as far as its results are compared. */
export interface Results {
  questions: readonly Question[];
  seats: readonly Seat[];
}

/**
 * The students who are in in both sittings with points, and their shares of the points.
 *
 * @param tag only of the questions with this tag; absent: of all
 */
export function pairedResults(before: Results, after: Results, tag?: string): PairedResult[] {
  const first = sharesOf(before, tag);
  return [...sharesOf(after, tag)].flatMap(([id, { student, share }]) => {
    const had = first.get(id);
    return had ? [{ student, before: had.share, after: share }] : [];
  });
}

/** One student’s results over several sittings; null where the student has none. */
export interface ResultLine {
  student: Student;
  shares: (number | null)[];
}

/** The students with results in two sittings or more of these, in their order. */
export function resultLines(all: readonly Results[]): ResultLine[] {
  const shares = all.map((each) => sharesOf(each));
  const students = new Map(shares.flatMap((each) => [...each].map(([id, { student }]) => [id, student])));
  return [...students]
    .map(([id, student]) => ({ student, shares: shares.map((each) => each.get(id)?.share ?? null) }))
    .filter((line) => line.shares.filter((share) => share !== null).length > 1);
}

/** The tags that questions of both have, in the order of the alphabet. */
export function commonTags(before: Results, after: Results): string[] {
  const tagsOf = ({ questions }: Results) => new Set(questions.flatMap(({ tags }) => tags));
  const first = tagsOf(before);
  return [...tagsOf(after)].filter((tag) => first.has(tag)).sort((a, b) => a.localeCompare(b));
}

function sharesOf({ questions, seats }: Results, tag?: string) {
  const asked = new Set(
    questions.filter(({ tags }) => tag === undefined || tags.includes(tag)).map(({ id }) => id),
  );
  const shares = new Map<string, { student: Student; share: number }>();
  for (const { student, scorecard, ...seat } of inFigures(seats)) {
    if (!scorecard || !isIn({ student, scorecard, ...seat })) continue;
    const share = tag === undefined ? totalShare(scorecard) : partShare({ scorecard }, asked);
    if (share !== null) shares.set(student.id, { student, share });
  }
  return shares;
}
