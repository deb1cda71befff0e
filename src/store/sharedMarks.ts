import { settledValues, type MarkedTwice, type SettleRule } from '@/core/analysis/compareMarkers';
import { itemsOf } from '@/core/kinds/items';
import { takenBack } from '@/core/marking/shares/content';
import { keyOfRow } from '@/core/model/desk';
import { changedMark, HandMark, ownMarker, settledMarker } from '@/core/model/mark';
import type { MarkingShare, MarksBack } from '@/core/model/share';
import { done } from '@/words/done';
import { dropProgress, runCommand } from './command';
import { emptyMark } from './marks';
import { versionOf } from './shares';
import { desk } from './tables';

/** Marks of other markers: how they come to this desk, and what holds where they differ. */

/** What became of marks that came back. */
export interface MarksTaken {
  shareId: string;
  marker: string;
  /** `sameAsBefore`: nothing in them is new. */
  outcome: 'taken' | 'sameAsBefore' | 'pulledBack' | 'otherSitting' | 'gone';
  /** How many answers have points now. */
  marked: number;
  /** How many of them were left out: not of this share, or more points than there are. */
  leftOut: number;
}

/** The marks of a share that are new, changed, or no longer there. */
interface MarksDue {
  put: HandMark[];
  remove: HandMark[];
}

/** Takes marks in that came back as files, as one step. */
export async function takeMarks(sittingId: string, backs: readonly MarksBack[], now: string) {
  const said = done.marksTaken(backs.length);
  return runCommand({ command: 'takeMarks', said, about: sittingId }, now, async (record) => {
    const looked = await marksDue(backs, now, ({ sittingId: of, pulledBackAt }) =>
      of !== sittingId ? 'otherSitting' : pulledBackAt !== undefined ? 'pulledBack' : null,
    );
    for (const { share, due } of looked) {
      if (!share || !due) continue;
      await record.addAll(
        'marks',
        due.put.filter((mark) => !due.known.has(answerKey(mark))),
      );
      for (const mark of due.put) if (due.known.has(answerKey(mark))) await record.put('marks', mark);
      for (const mark of due.remove) await record.remove('marks', keyOfRow('marks', mark));
      await record.put('shares', share);
    }
    return looked.map(({ told }) => told);
  });
}

/**
 * The same for marks that came over the server: nobody did anything here, so there is nothing to undo. The server takes none
 * of a share that was pulled back: what it has was given before.
 */
export async function takeMarksFromServer(backs: readonly MarksBack[], now: string): Promise<void> {
  await desk.transaction(
    'rw',
    [desk.marks, desk.shares, desk.sittings, desk.paperVersions, desk.progress],
    async () => {
      for (const { share, due } of await marksDue(backs, now, () => null)) {
        if (!share || !due) continue;
        await desk.marks.bulkPut(due.put);
        await desk.marks.bulkDelete(
          due.remove.map(({ attemptId, questionId, markerId }): [string, string, string] => [
            attemptId,
            questionId,
            markerId,
          ]),
        );
        await desk.shares.put(share);
        await dropProgress(desk, share.sittingId);
      }
    },
  );
}

const answerKey = ({ attemptId, questionId }: Pick<HandMark, 'attemptId' | 'questionId'>) =>
  `${attemptId}\n${questionId}`;

interface Looked {
  told: MarksTaken;
  share: MarkingShare | null;
  due: (MarksDue & { known: ReadonlyMap<string, HandMark> }) | null;
}

/**
 * What of these marks is to be taken: looked at together, so that the marks that are here are read once.
 *
 * @param refused why nothing is taken of a share; null: it is
 */
async function marksDue(
  backs: readonly MarksBack[],
  now: string,
  refused: (share: MarkingShare) => 'otherSitting' | 'pulledBack' | null,
): Promise<Looked[]> {
  const found: Looked[] = [];
  const here = new Map<string, Map<string, Map<string, HandMark>>>();
  for (const back of backs) {
    const share = await desk.shares.get(back.shareId);
    const sitting = share && (await desk.sittings.get(share.sittingId));
    const paper = sitting && (await versionOf(sitting));
    const told = { shareId: back.shareId, marker: share?.marker ?? '', marked: 0, leftOut: 0 };
    const why = share && paper ? refused(share) : 'gone';
    if (!share || !paper || why !== null) {
      found.push({ told: { ...told, outcome: why ?? 'gone' }, share: null, due: null });
      continue;
    }
    const most = new Map(itemsOf(paper.questions).map(({ id, points }) => [id, points]));
    const { marks, leftOut } = takenBack(share, back, most);
    const all = here.get(share.sittingId) ?? (await marksByMarker(share.sittingId));
    here.set(share.sittingId, all);
    const known = all.get(share.id) ?? new Map<string, HandMark>();
    const came = new Map(marks.map((mark) => [answerKey(mark), HandMark.parse(mark)]));
    const put = [...came].flatMap(([key, mark]) =>
      JSON.stringify(known.get(key)) === JSON.stringify(mark) ? [] : [mark],
    );
    const remove = [...known].flatMap(([key, mark]) => (came.has(key) ? [] : [mark]));
    const marked = marks.filter(({ points }) => points !== null).length;
    const outcome = put.length + remove.length > 0 ? ('taken' as const) : ('sameAsBefore' as const);
    found.push({
      told: { ...told, outcome, marked, leftOut },
      share: { ...share, heardAt: now },
      due: { put, remove, known },
    });
  }
  return found;
}

async function marksByMarker(sittingId: string): Promise<Map<string, Map<string, HandMark>>> {
  const by = new Map<string, Map<string, HandMark>>();
  for (const mark of await desk.marks.where({ sittingId }).toArray()) {
    const of = by.get(mark.markerId) ?? new Map<string, HandMark>();
    by.set(mark.markerId, of.set(answerKey(mark), mark));
  }
  return by;
}

/**
 * Settles answers that two markers gave different points to. What each of them gave stays; this counts above it.
 *
 * @param why whose points hold, in words
 */
export async function settleMarks(
  sittingId: string,
  pairs: readonly MarkedTwice[],
  rule: SettleRule,
  why: string,
  now: string,
) {
  const said = done.marksSettled(pairs.length);
  return runCommand({ command: 'settleMarks', said, about: sittingId }, now, async (record) => {
    for (const pair of pairs) {
      const { attemptId, questionId } = pair;
      const before =
        (await desk.marks.get([attemptId, questionId, settledMarker])) ??
        emptyMark({ sittingId, questionId, markerId: settledMarker }, attemptId);
      const change = { adjustment: undefined, note: undefined, ...settledValues(pair, rule) };
      const settled = changedMark(before, change, { at: now, by: ownMarker, why });
      const { work: _work, ...rest } = settled;
      const work = (rule === 'second' ? pair.second : pair.first).work;
      await record.put('marks', HandMark.parse({ ...rest, at: now, ...(work && { work }) }));
    }
  });
}
