import { groupBy } from '@/core/basics/groupBy';
import { marksThatCount } from '@/core/scoring/marksThatCount';
import { keyOfRow } from '@/core/model/desk';
import type { MarkChange } from '@/core/marking/markChanges';
import { changedMark, HandMark, isNoMark, ownMarker } from '@/core/model/mark';
import type { WorkStep } from '@/core/model/workMark';
import { runCommand } from './command';
import { desk } from './tables';

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
  /** Who marks; absent: the marker whose desk it is. */
  markerId?: string;
}

/**
 * Marks answers by hand; over a key, this is an override. Each mark keeps how it came to be.
 *
 * @param joins names a run of typing, so that it is one entry in the log
 * @param why in the marker's words, for the history of the marks
 */
export async function markAnswers(
  place: MarkPlace,
  step: MarkStep,
  said: string,
  now: string,
  joins?: string,
  why = '',
) {
  return runCommand(
    { command: 'markAnswers', said, about: place.sittingId, ...(joins ? { joins } : {}) },
    now,
    async (record) => {
      const all = await marksAt(place);
      for (const before of all) {
        const change = typeof step === 'function' ? step(before, all) : step;
        const mark = changedMark(before, change, { at: now, by: before.markerId, why });
        if (mark === before) continue;
        if (isNoMark(mark)) await record.remove('marks', keyOfRow('marks', mark));
        else await record.put('marks', HandMark.parse(mark));
      }
    },
  );
}

/**
 * The marks of these answers as they are kept; empty ones where there are none. What is done to an answer that another
 * marker marked, or that was settled, goes on from what counts.
 */
async function marksAt(place: MarkPlace): Promise<HandMark[]> {
  const { sittingId, questionId, attemptIds, markerId = ownMarker } = place;
  const shared = (await desk.shares.where({ sittingId }).count()) > 0;
  const all = shared ? await marksOfAnswers(place) : new Map<string, HandMark[]>();
  const own = await desk.marks.bulkGet(
    attemptIds.map((attemptId): [string, string, string] => [attemptId, questionId, markerId]),
  );
  return attemptIds.map((attemptId, at) => {
    const counts = marksThatCount(all.get(attemptId) ?? []).get(questionId);
    const base = counts && counts.markerId !== markerId ? counts : own[at];
    return base ? { ...base, markerId, history: own[at]?.history ?? [] } : emptyMark(place, attemptId);
  });
}

/** The marks of these answers, whoever made them, by attempt. */
const marksOfAnswers = async ({ questionId, attemptIds }: MarkPlace): Promise<Map<string, HandMark[]>> =>
  groupBy(
    await desk.marks
      .where('[attemptId+questionId]')
      .anyOf(attemptIds.map((attemptId) => [attemptId, questionId]))
      .toArray(),
    ({ attemptId }) => attemptId,
  );

/** Changes the marks that lie on the work of one answer. Points and words stay as they are. */
export async function markWork(place: MarkPlace, step: WorkStep, said: string, now: string) {
  return runCommand({ command: 'markWork', said, about: place.sittingId }, now, async (record) => {
    for (const before of await marksAt(place)) {
      const work = step(before.work ?? []);
      const { work: _before, ...rest } = before;
      const mark: HandMark = { ...rest, at: now, ...(work.length > 0 && { work: [...work] }) };
      if (isNoMark(mark)) await record.remove('marks', keyOfRow('marks', mark));
      else await record.put('marks', HandMark.parse(mark));
    }
  });
}

/** A mark that says nothing yet. */
export const emptyMark = (
  { sittingId, questionId, markerId = ownMarker }: Omit<MarkPlace, 'attemptIds'>,
  attemptId: string,
): HandMark => ({
  attemptId,
  questionId,
  markerId,
  sittingId,
  points: null,
  lines: [],
  comment: '',
  aside: false,
  at: '',
  history: [],
});
