import { z } from 'zod';
import { Id, Instant, Line, Text } from '../basics/common';
import { roundPoints } from '../basics/points';
import { WorkMarks } from './workMark';

/** What a marker gives beside what the scheme or the maximum says, and why: only markers see it. */
export const Adjustment = z.object({ points: z.number().min(-1000).max(1000), reason: Line });
export type Adjustment = z.infer<typeof Adjustment>;

/** What a marker says of one answer. */
export const MarkValues = z.object({
  /** Null: seen (commented, put aside) but no points yet. */
  points: z.number().min(0).max(1000).nullable(),
  /** Ids of the scheme lines met. */
  lines: Id.array(),
  comment: Text,
  /** To be looked at again. */
  aside: z.boolean(),
  /** Part of the points: more than the maximum can only be given with one. */
  adjustment: Adjustment.optional(),
  /** Words that no student ever sees. */
  note: Text.optional(),
});
export type MarkValues = z.infer<typeof MarkValues>;

/** One change of a mark. What it became stands in the change after it, or in the mark itself. */
export const MarkRevision = z.object({
  at: Instant,
  by: Id,
  why: Line,
  /** Null: it is the first. */
  before: MarkValues.nullable(),
});
export type MarkRevision = z.infer<typeof MarkRevision>;

/** The marker whose desk it is. */
export const ownMarker = 'teacher';

/** Who decides where markers differ: the same teacher, above what any of them gave. */
export const settledMarker = 'settled';

/** In the place of a question: the mark is about the whole attempt, and has only words. */
export const wholeAttempt = 'attempt';

/** In the place of a question: the mark is about its correction. */
export const correctionOf = (questionId: string) => `c.${questionId}`;

/** What one marker decided about one answer: points by hand, or an override of the key. */
export const HandMark = MarkValues.extend({
  attemptId: Id,
  questionId: Id,
  /** Marks of before there were several markers are the teacher's. */
  markerId: Id.default(ownMarker),
  sittingId: Id,
  at: Instant,
  /** How it came to be, oldest first. */
  history: MarkRevision.array().default([]),
  /** Marks on the work itself; what was there before is in the desk's log. */
  work: WorkMarks.optional(),
});
export type HandMark = z.infer<typeof HandMark>;

/** What a mark says, without whose it is and how it came to be. */
export const valuesOf = ({ points, lines, comment, aside, adjustment, note }: MarkValues): MarkValues => ({
  points,
  lines,
  comment,
  aside,
  ...(adjustment && { adjustment }),
  ...(note && { note }),
});

const nothing: MarkValues = { points: null, lines: [], comment: '', aside: false };

const isEmpty = (values: MarkValues) => JSON.stringify(valuesOf(values)) === JSON.stringify(nothing);

/** Points with what is given or taken beside them: never below none. */
export const adjusted = (points: number, adjustment: Adjustment | undefined): number =>
  Math.max(0, roundPoints(points + (adjustment?.points ?? 0)));

/** The points of a mark without what was given or taken beside them. */
export const unadjusted = ({ points, adjustment }: Pick<MarkValues, 'points' | 'adjustment'>): number =>
  Math.max(0, roundPoints((points ?? 0) - (adjustment?.points ?? 0)));

/** Whether a mark says nothing and never did: there is nothing to keep. */
export const isNoMark = (mark: HandMark): boolean =>
  isEmpty(mark) &&
  (mark.work ?? []).length === 0 &&
  mark.history.every(({ before }) => before === null || isEmpty(before));

/** Words typed on and on within this time are one change. */
const joinsMs = 60_000;
/** Of a mark that was changed more often than that, the first and the latest changes are kept. */
const mostChanges = 100;

/**
 * A mark as it is after a change, with the change in its history; the same mark where nothing is different.
 *
 * @param why in the marker's words; empty where nothing was said
 */
export function changedMark(
  mark: HandMark,
  values: Partial<MarkValues>,
  { at, by, why }: Omit<MarkRevision, 'before'>,
): HandMark {
  const before = valuesOf(mark);
  const after = valuesOf({ ...before, ...values });
  if (JSON.stringify(before) === JSON.stringify(after)) return mark;
  const last = mark.history.at(-1);
  const first = mark.history.length === 0 && isEmpty(before);
  const typing =
    last?.by === by &&
    last.why === why &&
    Date.parse(at) - Date.parse(last.at) < joinsMs &&
    differsInWordsAlone(before, after) &&
    differsInWordsAlone(last.before ?? nothing, before);
  // Words that were typed and deleted again are none.
  const back = typing && JSON.stringify(last.before ?? nothing) === JSON.stringify(after);
  const history = typing
    ? [...mark.history.slice(0, -1), ...(back ? [] : [{ ...last, at }])]
    : [...mark.history, { at, by, why, before: first ? null : before }];
  const kept = history.length > mostChanges ? [...history.slice(0, 1), ...history.slice(2)] : history;
  // Absent is nothing: what went is left out.
  const { adjustment: _adjustment, note: _note, ...rest } = mark;
  return { ...rest, ...after, at, history: kept };
}

const wordless = (values: MarkValues) => JSON.stringify(valuesOf({ ...values, comment: '', note: '' }));
const differsInWordsAlone = (a: MarkValues, b: MarkValues) => wordless(a) === wordless(b);

/** One step of a mark's history, with what it changed from and to. */
export interface ShownRevision extends Omit<MarkRevision, 'before'> {
  from: MarkValues | null;
  to: MarkValues;
}

/** How a mark came to be, oldest first. */
export const historyOf = (mark: HandMark): ShownRevision[] =>
  mark.history.map(({ before: from, ...step }, index) => ({
    ...step,
    from,
    to: mark.history[index + 1]?.before ?? valuesOf(mark),
  }));
