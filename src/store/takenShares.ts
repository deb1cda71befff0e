import type { Asset } from '@/core/basics/asset';
import { unpackedAsset } from '@/core/basics/assetBytes';
import { shareRows } from '@/core/marking/shares/content';
import { ownMarker } from '@/core/model/mark';
import type { MarksBack, ShareContent, TakenShare } from '@/core/model/share';
import { done } from '@/words/done';
import { runCommand, type Recorder } from './command';
import { newJoinCode } from './ids';
import { removeOwned } from './owners';
import { desk } from './tables';

/** Shares of marking that were given to this desk. */

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

/** Makes a sitting of what a share holds. @returns false where it is here already */
export async function takeRows(record: Recorder, content: ShareContent, code: string, now: string) {
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
  change: { [Field in 'sentAt' | 'pulledBackAt']?: TakenShare[Field] | undefined },
): Promise<void> {
  await desk.takenShares.update(sittingId, change);
}
