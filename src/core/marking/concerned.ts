import type { AnswerEntry } from './piles/arrange';
import { marksOf, type SameAnswers } from './sameAnswers';

/** Other answers that a comment with points may concern. */
export interface Concerned {
  /** The comment that gave or took points. */
  text: string;
  points: number;
  /** Whose comment says the same without its points. */
  said: SameAnswers[];
  /** What is near to the answer that has it. */
  near: SameAnswers[];
}

/**
 * Whom else a comment with points may concern: answers whose comment says the same, and those near to it, that have points by
 * hand and not what the comment gives or takes.
 *
 * @returns null where the answers have no such comment, or nobody else is concerned
 */
export function alsoConcerned(
  entries: readonly AnswerEntry[],
  here: SameAnswers,
  comments: readonly { text: string; points: number | null }[],
): Concerned | null {
  const [mark] = marksOf(here);
  const reasons = mark?.adjustment?.reason.split('; ') ?? [];
  const comment = comments.find(({ text, points }) => points !== null && reasons.includes(text));
  if (!comment?.points) return null;
  const open = entries.filter(({ group }) => group.id !== here.id && lacks(group, comment.text));
  const at = entries.find(({ group }) => group.id === here.id);
  const pile = at?.pile ?? at?.fits ?? null;
  const saysSame = ({ group }: AnswerEntry) =>
    marksOf(group).every((each) => each.comment.split('\n').includes(comment.text));
  const isNear = (entry: AnswerEntry) => pile !== null && (entry.pile ?? entry.fits)?.id === pile.id;
  const groupsOf = (some: readonly AnswerEntry[]) => some.map(({ group }) => group);
  const said = groupsOf(open.filter(saysSame));
  const near = groupsOf(open.filter((entry) => isNear(entry) && !saysSame(entry)));
  return said.length + near.length === 0 ? null : { text: comment.text, points: comment.points, said, near };
}

/** Whether all of equal answers have points by hand, and none has what a comment gives or takes. */
function lacks(group: SameAnswers, text: string): boolean {
  const marks = marksOf(group);
  return (
    marks.length === group.answers.length &&
    marks.every(({ points, adjustment }) => points !== null && !adjustment?.reason.split('; ').includes(text))
  );
}
