import { sumBy } from 'remeda';
import { done } from '@/words/done';
import { lateKey, withDecision } from '@/core/attempts/late';
import type { LateAnswer } from '@/core/model/sitting';
import { changedMark, ownMarker } from '@/core/model/mark';
import { runCommand } from './command';
import { desk } from './tables';

/** Which late answers of an attempt, by `lateKey`. */
export interface WhichLate {
  attemptId: string;
  keys: readonly string[];
}

/**
 * Lets answers count that came after the end, or not; null: they wait again. Where an answer that was marked by hand gives
 * way to another, its mark is put aside for a second look.
 */
export async function decideLate(
  sittingId: string,
  which: readonly WhichLate[],
  counts: boolean | null,
  reason: string,
  now: string,
) {
  const some = sumBy(which, ({ keys }) => keys.length);
  const said = done.lateDecided(some, counts);
  return runCommand({ command: 'decideLate', said, about: sittingId }, now, async (record) => {
    for (const { attemptId, keys } of which) {
      const attempt = await desk.attempts.get(attemptId);
      if (!attempt) continue;
      const decision: LateAnswer['decision'] =
        counts === null ? null : { counts, by: 'teacher', reason, at: now };
      await record.put('attempts', withDecision(attempt, keys, decision));
      const changed = new Set(
        (attempt.late ?? [])
          .filter(
            (each) => keys.includes(lateKey(each)) && (each.decision?.counts ?? false) !== (counts ?? false),
          )
          .map(({ questionId }) => questionId),
      );
      for (const questionId of changed) {
        const revision = { at: now, by: ownMarker, why: reason };
        for (const mark of await desk.marks.where({ attemptId, questionId }).toArray())
          await record.put('marks', changedMark(mark, { aside: true }, revision));
      }
    }
  });
}
