import { ownMarker, type HandMark } from '../model/mark';

/**
 * The mark that counts of each question of one attempt, by question id: the teacher's own before another marker's, of
 * several others' the one made first.
 */
export function marksThatCount(marks: readonly HandMark[]): Map<string, HandMark> {
  const counts = new Map<string, HandMark>();
  for (const mark of marks) {
    const other = counts.get(mark.questionId);
    if (!other || goesBefore(mark, other)) counts.set(mark.questionId, mark);
  }
  return counts;
}

const goesBefore = (a: HandMark, b: HandMark) =>
  a.markerId === ownMarker || (b.markerId !== ownMarker && a.at < b.at);
