import { HandMark } from '@/core/model/sitting';
import { runCommand } from './command';
import { desk } from './tables';

/** What a marker decides about one or many equal answers. What is left out stays as it was. */
export type MarkChange = Partial<Pick<HandMark, 'points' | 'lines' | 'comment' | 'aside'>>;

/**
 * A change, or how it follows from the marks as they are kept: fast keys must not build on what is drawn. What is done to
 * equal answers follows from the marks of all of them.
 */
export type MarkStep = MarkChange | ((before: HandMark, all: readonly HandMark[]) => MarkChange);

/** Where the answers are. */
export interface MarkPlace {
  sittingId: string;
  questionId: string;
  attemptIds: readonly string[];
}

/**
 * Marks answers by hand; over a key, this is an override.
 *
 * @param joins names a run of typing, so that it is one entry in the log
 */
export async function markAnswers(
  place: MarkPlace,
  step: MarkStep,
  said: string,
  now: string,
  joins?: string,
) {
  return runCommand(
    { command: 'markAnswers', said, about: place.sittingId, ...(joins ? { joins } : {}) },
    now,
    async (record) => {
      const kept = await desk.marks.bulkGet(
        place.attemptIds.map((attemptId): [string, string] => [attemptId, place.questionId]),
      );
      const all = place.attemptIds.map(
        (attemptId, index) => kept[index] ?? { ...emptyMark(place, attemptId, now), at: '' },
      );
      for (const before of all) {
        const { attemptId } = before;
        const change = typeof step === 'function' ? step(before, all) : step;
        const mark = HandMark.parse({ ...before, ...change, at: now });
        if (isNothing(mark)) await record.remove('marks', [attemptId, place.questionId]);
        else await record.put('marks', mark);
      }
    },
  );
}

function emptyMark(place: MarkPlace, attemptId: string, now: string): HandMark {
  const { sittingId, questionId } = place;
  return { attemptId, questionId, sittingId, points: null, lines: [], comment: '', aside: false, at: now };
}

function isNothing(mark: HandMark): boolean {
  return mark.points === null && mark.lines.length === 0 && mark.comment === '' && !mark.aside;
}
