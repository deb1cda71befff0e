import type { Asset } from '@/core/basics/asset';
import { assetId, packedAsset, unpackedAsset } from '@/core/basics/assetBytes';
import { assetsIn } from '@/core/basics/fileRules';
import { withoutMetadata } from '@/core/basics/pictureMetadata';
import { itemsOf } from '@/core/kinds/items';
import { settledValues, type MarkedTwice, type SettleRule } from '@/core/analysis/compareMarkers';
import { CommandFault } from '@/core/model/commandFault';
import { keyOfRow } from '@/core/model/desk';
import { changedMark, HandMark, ownMarker, settledMarker } from '@/core/model/mark';
import {
  MarkingShare,
  type AnswersGiven,
  type MarksBack,
  type ShareContent,
  type ShareWay,
  type TakenShare,
} from '@/core/model/share';
import type { PaperVersion } from '@/core/model/paper';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { scriptsOf } from '@/core/marking/shares/deal';
import { filesOfShare, shareContent, shareRows, takenBack } from '@/core/marking/shares/content';
import { done } from '@/words/done';
import { dropProgress, runCommand, type Recorder } from './command';
import { newAccessCode, newId, newJoinCode } from './ids';
import { removeOwned } from './owners';
import { desk } from './tables';

/** Shares of marking: given to others, taken from others, and what comes back. */

/** One marker, and the answers that are to be his. */
export interface ShareWish {
  marker: string;
  purpose: MarkingShare['purpose'];
  way: ShareWay;
  answers: AnswersGiven[];
}

const secretBytes = 32;

async function newShare(sittingId: string, wish: ShareWish, now: string): Promise<MarkingShare> {
  const bytes = crypto.getRandomValues(new Uint8Array(secretBytes));
  const share = MarkingShare.parse({
    ...wish,
    id: newId(),
    sittingId,
    code: newAccessCode(),
    secret: [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join(''),
    givenAt: now,
  } satisfies MarkingShare);
  const sitting = await desk.sittings.get(sittingId);
  const paper = sitting && (await versionOf(sitting));
  if (!paper) return share;
  const { renamed } = await assetsOf(share, paper, await attemptsOf(share));
  const back = Object.fromEntries([...renamed].map(([here, there]) => [there, here]));
  return renamed.size === 0 ? share : { ...share, renamed: back };
}

/** Gives answers to markers. What goes to another desk is made by `shareToSend`. */
export async function giveShares(sittingId: string, wishes: readonly ShareWish[], now: string) {
  const shares = await Promise.all(wishes.map((wish) => newShare(sittingId, wish, now)));
  const said = done.sharesGiven(shares.map(({ marker }) => marker));
  return runCommand({ command: 'giveShares', said, about: sittingId }, now, async (record) => {
    for (const share of shares) await record.add('shares', share);
    return shares;
  });
}

/** What a share holds, as it goes to its marker. @throws {CommandFault} where its sitting is gone */
export async function shareToSend(shareId: string): Promise<{ content: ShareContent; code: string }> {
  const share = await desk.shares.get(shareId);
  if (!share) throw new CommandFault('shareGone');
  return { content: await contentOf(share), code: share.code };
}

const attemptsOf = async ({ answers }: Pick<MarkingShare, 'answers'>): Promise<Attempt[]> =>
  (await desk.attempts.bulkGet(scriptsOf(answers))).filter((attempt) => attempt !== undefined);

async function contentOf(share: MarkingShare): Promise<ShareContent> {
  const sitting = await desk.sittings.get(share.sittingId);
  const paper = sitting && (await versionOf(sitting));
  if (!sitting || !paper) throw new CommandFault('shareGone');
  const attempts = await attemptsOf(share);
  const { assets, renamed } = await assetsOf(share, paper, attempts);
  return shareContent(share, sitting.title, paper, attempts, assets.map(packedAsset), renamed);
}

/** The pictures of the paper and the files of the answers, without whatever a camera wrote beside a photo. */
async function assetsOf(share: MarkingShare, paper: PaperVersion, attempts: readonly Attempt[]) {
  const ids = new Set([...assetsIn([paper]), ...filesOfShare(share, attempts)]);
  const assets: Asset[] = [];
  const renamed = new Map<string, string>();
  for (const asset of await desk.assets.bulkGet([...ids])) {
    if (!asset) continue;
    const bytes = share.way === 'here' ? asset.bytes : withoutMetadata(asset.bytes);
    // Other bytes are another file.
    const id = bytes === asset.bytes ? asset.id : await assetId(bytes);
    if (id !== asset.id) renamed.set(asset.id, id);
    assets.push({ ...asset, id, bytes, size: bytes.length });
  }
  return { assets, renamed };
}

const versionOf = async (sitting: Sitting): Promise<PaperVersion | undefined> =>
  sitting.paperVersion === null ? undefined : desk.paperVersions.get([sitting.paperId, sitting.paperVersion]);

/** No more marks are taken of a share; those that came stay. Null: they are taken again. */
export async function pullShareBack(shareId: string, at: string | null, now: string) {
  const share = await desk.shares.get(shareId);
  const said =
    at === null ? done.shareOpenAgain(share?.marker ?? '') : done.sharePulledBack(share?.marker ?? '');
  return runCommand(
    { command: 'changeShare', said, about: share?.sittingId ?? null },
    now,
    async (record) => {
      const kept = await desk.shares.get(shareId);
      if (!kept) throw new CommandFault('shareGone');
      const { pulledBackAt: _before, ...rest } = kept;
      await record.put('shares', { ...rest, ...(at !== null && { pulledBackAt: at }) });
    },
  );
}

/**
 * Takes a share that a colleague gave: a sitting is made of it, with scripts that have no names.
 *
 * @returns the id of that sitting, and whether it was here already
 */
export async function takeShare(content: ShareContent, code: string, now: string) {
  for (const asset of content.assets.map(unpackedAsset)) await keepAsGiven(asset);
  const said = done.shareTaken(content.title);
  const { result } = await runCommand({ command: 'takeShare', said, about: content.shareId }, now, (record) =>
    takeRows(record, content, code, now),
  );
  return { sittingId: content.shareId, here: !result };
}

async function takeRows(record: Recorder, content: ShareContent, code: string, now: string) {
  if (await desk.sittings.get(content.shareId)) return false;
  const codes = new Set((await desk.students.toArray()).map(({ joinCode }) => joinCode));
  const rows = shareRows(content, code, () => newJoinCode(codes), now);
  const { paperId, version: _version, frozenAt, ...paper } = rows.paper;
  await record.add('papers', { ...paper, id: paperId, createdAt: frozenAt, changedAt: frozenAt });
  await record.add('paperVersions', rows.paper);
  await record.add('sittings', rows.sitting);
  await record.addAll('students', rows.students);
  await record.addAll('attempts', rows.attempts);
  await record.add('takenShares', rows.taken);
  return true;
}

/** Its id is drawn from its bytes, which was checked when it was read. */
async function keepAsGiven(asset: Asset): Promise<void> {
  if (!(await desk.assets.get(asset.id))) await desk.assets.put(asset);
}

/** Takes a share off this desk, with the marks made here. */
export async function removeTakenShare(sittingId: string, now: string) {
  const said = done.shareRemoved;
  return runCommand({ command: 'removeTakenShare', said }, now, async (record) => {
    await removeOwned(record, 'sittings', sittingId);
    await record.remove('sittings', [sittingId]);
    await removeOwned(record, 'papers', sittingId);
    await record.remove('papers', [sittingId]);
  });
}

/**
 * A blind sample of what was marked, for oneself: the share stays on this desk, and is marked like any other.
 *
 * @returns the id of the sitting made of it
 */
export async function giveAgain(sittingId: string, answers: AnswersGiven[], now: string) {
  const share = await newShare(
    sittingId,
    { marker: done.oneself, purpose: 'again', way: 'here', answers },
    now,
  );
  const content = await contentOf(share);
  const { result, said } = await runCommand(
    { command: 'giveAgain', said: done.sampleDrawn, about: sittingId },
    now,
    async (record) => {
      await record.add('shares', share);
      await takeRows(record, { ...content, title: done.againTitle(content.title) }, share.code, now);
      return share.id;
    },
  );
  return { sittingId: result, said };
}

/** The marks made of a taken share, as they go back; null where this desk has no such share. */
export async function marksToSend(
  sittingId: string,
  now: string,
): Promise<{ back: MarksBack; taken: TakenShare; title: string } | null> {
  const [taken, sitting] = await Promise.all([desk.takenShares.get(sittingId), desk.sittings.get(sittingId)]);
  if (!taken || !sitting) return null;
  const marks = (await desk.marks.where({ sittingId }).toArray()).filter(
    ({ markerId }) => markerId === ownMarker,
  );
  return { back: { shareId: sittingId, savedAt: now, marks }, taken, title: sitting.title };
}

/** Notes that the marks of a taken share were given back, or that it has been pulled back. */
export async function noteTakenShare(
  sittingId: string,
  change: Partial<Pick<TakenShare, 'sentAt' | 'pulledBackAt'>>,
): Promise<void> {
  await desk.takenShares.update(sittingId, change);
}

/** What became of marks that came back. */
export interface MarksTaken {
  shareId: string;
  marker: string;
  /** `sameAsBefore`: nothing in them is new. */
  outcome: 'taken' | 'sameAsBefore' | 'pulledBack' | 'gone';
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
    const looked = await marksDue(backs, now);
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

/** The same for marks that came over the server: nobody did anything here, so there is nothing to undo. */
export async function takeMarksFromServer(backs: readonly MarksBack[], now: string): Promise<void> {
  await desk.transaction(
    'rw',
    [desk.marks, desk.shares, desk.sittings, desk.paperVersions, desk.progress],
    async () => {
      for (const { share, due } of await marksDue(backs, now)) {
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

/** What of these marks is to be taken: looked at together, so that the marks that are here are read once. */
async function marksDue(backs: readonly MarksBack[], now: string): Promise<Looked[]> {
  const found: Looked[] = [];
  const here = new Map<string, Map<string, Map<string, HandMark>>>();
  for (const back of backs) {
    const share = await desk.shares.get(back.shareId);
    const sitting = share && (await desk.sittings.get(share.sittingId));
    const paper = sitting && (await versionOf(sitting));
    const told = { shareId: back.shareId, marker: share?.marker ?? '', marked: 0, leftOut: 0 };
    if (!share || !paper) {
      found.push({ told: { ...told, outcome: 'gone' }, share: null, due: null });
      continue;
    }
    if (share.pulledBackAt !== undefined) {
      found.push({ told: { ...told, outcome: 'pulledBack' }, share: null, due: null });
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
      const before = (await desk.marks.get([attemptId, questionId, settledMarker])) ?? {
        ...{ attemptId, questionId, sittingId, markerId: settledMarker },
        ...{ points: null, lines: [], comment: '', aside: false, at: '', history: [] },
      };
      const change = { adjustment: undefined, note: undefined, ...settledValues(pair, rule) };
      const settled = changedMark(before, change, { at: now, by: ownMarker, why });
      const { work: _work, ...rest } = settled;
      const work = (rule === 'second' ? pair.second : pair.first).work;
      await record.put('marks', HandMark.parse({ ...rest, at: now, ...(work && { work }) }));
    }
  });
}
