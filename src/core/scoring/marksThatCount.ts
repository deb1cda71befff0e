import { ownMarker, settledMarker, type HandMark } from '../model/mark';

/**
 * The mark that counts of each question of one attempt, by question id: the teacher's own, or what was settled where
 * markers differed, whichever came last; without them, of several other markers' the one made first that has points.
 * Where the teacher only said something and another gave points, those points stand with the teacher's words.
 */
export function marksThatCount(marks: readonly HandMark[]): Map<string, HandMark> {
  const teachers = new Map<string, HandMark>();
  const others = new Map<string, HandMark>();
  for (const mark of marks) {
    const { questionId } = mark;
    const of = isTeachers(mark) ? teachers : others;
    const known = of.get(questionId);
    if (!known || (of === teachers ? mark.at > known.at : goesBefore(mark, known))) of.set(questionId, mark);
  }
  if (others.size === 0) return teachers;
  const counts = new Map(others);
  for (const [questionId, own] of teachers) {
    const other = others.get(questionId);
    counts.set(questionId, other && other.points !== null && onlyWords(own) ? withWords(other, own) : own);
  }
  return counts;
}

const isTeachers = ({ markerId }: HandMark) => markerId === ownMarker || markerId === settledMarker;

const goesBefore = (a: HandMark, b: HandMark): boolean =>
  (a.points === null) === (b.points === null) ? a.at < b.at : a.points !== null;

/** Whether it has no points, and never had: what was cleared is cleared. */
const onlyWords = ({ points, history }: HandMark) =>
  points === null && history.every(({ before }) => (before?.points ?? null) === null);

const withWords = (other: HandMark, { comment, note, aside, work }: HandMark): HandMark => ({
  ...other,
  comment: comment || other.comment,
  aside: aside || other.aside,
  ...(note && { note }),
  ...(work && { work }),
});
