import { groupLines } from '../groupMark';
import type { Adjustment } from '../../model/mark';
import { awaitsMarker, marksOf, type SameAnswers } from '../sameAnswers';
import type { AnswerEntry } from './arrange';

/** What answers that wait would get if they got what others like them have: put forward, and given by nothing but the marker. */
export interface LikeMark {
  points: number;
  /** Ids of the scheme lines met. */
  lines: string[];
  /** What those with these lines have beside them. */
  adjustment?: Adjustment | undefined;
  /** The answers that have it: how the first of them put it, and how many there are. */
  text: string;
  times: number;
  /** Equal ones, here or in an earlier sitting; similar ones of the same pile; or those that are made of the same parts. */
  from: 'equal' | 'similar' | 'earlier' | 'parts';
  /** The earlier sitting's title. */
  sitting?: string;
  /** Of the answers that wait, the attempts they are in. */
  attemptIds: string[];
}

/**
 * What the answers of a row that wait are like: equal ones that came earlier and have points, else those of their pile, or of the one
 * they fit. Null
 * where none has, or where those that have do not have the same.
 */
export function likeOf({ group, pile, fits }: AnswerEntry): LikeMark | null {
  if (group.waiting === 0 || group.blank || group.onPaper) return null;
  const equal = markedOf(group);
  if (equal.answers.length > 0) return sharedBy([equal], waitingIn(group), 'equal');
  const others = ((pile ?? fits)?.members ?? [])
    .filter(({ id }) => id !== group.id)
    .map(markedOf)
    .filter(({ answers }) => answers.length > 0);
  return others.length > 0 ? sharedBy(others, waitingIn(group), 'similar') : null;
}

/** Of a group, the attempts whose answers wait. */
export const waitingIn = (group: SameAnswers): string[] =>
  group.answers.flatMap(({ award, attemptId }) => (awaitsMarker(award) ? [attemptId] : []));

/** Of a group, the answers that a marker gave points; worked out once for each group. */
function markedOf(group: SameAnswers): SameAnswers {
  const known = marked.get(group);
  if (known) return known;
  const answers = group.answers.filter(({ mark }) => mark !== undefined && mark.points !== null);
  const own = { ...group, answers };
  marked.set(group, own);
  return own;
}
const marked = new WeakMap<SameAnswers, SameAnswers>();

function sharedBy(
  groups: readonly SameAnswers[],
  attemptIds: string[],
  from: LikeMark['from'],
): LikeMark | null {
  const marks = groups.flatMap(marksOf);
  const [first] = groups;
  const [points, ...more] = new Set(marks.flatMap((mark) => mark.points ?? []));
  if (!first || points === undefined || more.length > 0) return null;
  const lines = groupLines(marks);
  // With the lines goes what was given beside them: together they make the points.
  const same = marks.find((mark) => mark.lines.join() === lines.join());
  return {
    points,
    lines,
    ...(same?.adjustment && { adjustment: same.adjustment }),
    text: first.text,
    times: marks.length,
    from,
    attemptIds,
  };
}
