import { keyOfRow } from '@/core/model/desk';
import { changedMark, HandMark, isNoMark, ownMarker, type MarkValues } from '@/core/model/mark';
import { runCommand } from './command';
import { desk } from './tables';

/** What a marker decides about one or many equal answers. What is left out stays as it was. */
export type MarkChange = Partial<MarkValues>;

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
 * Marks answers by hand; over a key, this is an override. Each mark keeps how it came to be.
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
        place.attemptIds.map((attemptId): [string, string, string] => [
          attemptId,
          place.questionId,
          ownMarker,
        ]),
      );
      const all = place.attemptIds.map((attemptId, index) => kept[index] ?? emptyMark(place, attemptId));
      for (const before of all) {
        const change = typeof step === 'function' ? step(before, all) : step;
        const mark = changedMark(before, change, { at: now, by: ownMarker, why: '' });
        if (mark === before) continue;
        if (isNoMark(mark)) await record.remove('marks', keyOfRow('marks', mark));
        else await record.put('marks', HandMark.parse(mark));
      }
    },
  );
}

const emptyMark = ({ sittingId, questionId }: MarkPlace, attemptId: string): HandMark => ({
  attemptId,
  questionId,
  markerId: ownMarker,
  sittingId,
  points: null,
  lines: [],
  comment: '',
  aside: false,
  at: '',
  history: [],
});
