import { groupBy } from '../basics/groupBy';
import { roundPoints } from '../basics/points';
import { agreement, type Agreement } from './agreement';
import type { HandMark, MarkValues } from '../model/mark';
import { valuesOf } from '../model/mark';

/** One answer to which two markers gave points. */
export interface MarkedTwice {
  questionId: string;
  attemptId: string;
  first: HandMark;
  second: HandMark;
}

const answerOf = ({ attemptId, questionId }: Pick<HandMark, 'attemptId' | 'questionId'>) =>
  `${attemptId}\n${questionId}`;

/** The answers that both markers gave points to. */
export function markedTwice(marks: readonly HandMark[], first: string, second: string): MarkedTwice[] {
  const of = (marker: string) =>
    new Map(
      marks
        .filter(({ markerId, points }) => markerId === marker && points !== null)
        .map((mark) => [answerOf(mark), mark]),
    );
  const others = of(second);
  return [...of(first)].flatMap(([answer, mark]) => {
    const other = others.get(answer);
    return other
      ? [{ questionId: mark.questionId, attemptId: mark.attemptId, first: mark, second: other }]
      : [];
  });
}

/** How far two markers agree over the answers that both marked. */
export const agreementOf = (pairs: readonly MarkedTwice[]): Agreement | null =>
  agreement(pairs.map(({ first, second }) => [first.points ?? 0, second.points ?? 0]));

/** Two markers who gave points to some of the same answers, and to how many. */
export interface MarkersMet {
  first: string;
  second: string;
  answers: number;
}

/** All pairs of markers that met, in the order in which the markers are given. */
export function markersMet(marks: readonly HandMark[], markers: readonly string[]): MarkersMet[] {
  const met = new Map<string, number>();
  const place = new Map(markers.map((id, at) => [id, at]));
  for (const of of groupBy(
    marks.filter(({ points, markerId }) => points !== null && place.has(markerId)),
    answerOf,
  ).values()) {
    const ids = of.map(({ markerId }) => place.get(markerId) ?? 0).sort((a, b) => a - b);
    for (const [at, a] of ids.entries())
      for (const b of ids.slice(at + 1)) met.set(`${a} ${b}`, (met.get(`${a} ${b}`) ?? 0) + 1);
  }
  return [...met]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([pair, answers]) => {
      const [a, b] = pair.split(' ').map((at) => markers[Number(at)] ?? '');
      return { first: a ?? '', second: b ?? '', answers };
    });
}

/** The pairs whose points differ, those furthest apart first. */
export const differing = (pairs: readonly MarkedTwice[]): MarkedTwice[] =>
  pairs
    .filter((pair) => apart(pair) > 0)
    .sort((a, b) => apart(b) - apart(a) || (answerOf(a) < answerOf(b) ? -1 : 1));

/** Equal answers to which two markers gave the same different points: one thing to settle. */
export interface DifferingAnswers {
  text: string;
  pairs: MarkedTwice[];
}

/**
 * The pairs that differ with equal answers together, those furthest apart first.
 *
 * @param answered what was answered: the text that equal answers have in common as `id`, and how it was put
 */
export function differingAnswers(
  pairs: readonly MarkedTwice[],
  answered: (pair: MarkedTwice) => { id: string; text: string },
): DifferingAnswers[] {
  const together = groupBy(differing(pairs), (pair) =>
    [answered(pair).id, pair.questionId, pair.first.points, pair.second.points].join('\n'),
  );
  return [...together.values()].map((same) => ({ text: same[0] ? answered(same[0]).text : '', pairs: same }));
}

/** How many points lie between the two. */
export const apart = ({ first, second }: Pick<MarkedTwice, 'first' | 'second'>): number =>
  Math.abs(roundPoints((first.points ?? 0) - (second.points ?? 0)));

/** Whose points hold where two markers differ. */
export type SettleRule = 'first' | 'second' | 'mean';

/** What holds of an answer that two markers gave different points to. By the mean, the lines are those that both saw. */
export function settledValues({ first, second }: MarkedTwice, rule: SettleRule): MarkValues {
  if (rule !== 'mean') return valuesOf(rule === 'first' ? first : second);
  const comments = [...new Set([first.comment, second.comment].filter(Boolean))];
  const notes = [...new Set([first.note, second.note].filter(Boolean))];
  const points = roundPoints(((first.points ?? 0) + (second.points ?? 0)) / 2);
  return {
    points,
    lines: first.lines.filter((line) => second.lines.includes(line)),
    comment: comments.join('\n'),
    aside: false,
    ...(notes.length > 0 && { note: notes.join('\n') }),
  };
}
