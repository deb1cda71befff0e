import type { Asset } from '@/core/basics/asset';
import { assetId, packedAsset } from '@/core/basics/assetBytes';
import { assetsIn } from '@/core/basics/fileRules';
import { withoutMetadata } from '@/core/basics/pictureMetadata';
import { CommandFault } from '@/core/model/commandFault';
import { MarkingShare, type AnswersGiven, type ShareContent, type ShareWay } from '@/core/model/share';
import type { PaperVersion } from '@/core/model/paper';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { scriptsOf } from '@/core/marking/shares/deal';
import { filesOfShare, shareContent } from '@/core/marking/shares/content';
import { done } from '@/words/done';
import { runCommand } from './command';
import { newAccessCode, newId } from './ids';
import { takeRows } from './takenShares';
import { desk } from './tables';

/** Shares of marking that this desk gives. */

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
    const bytes = share.way === 'here' ? asset.bytes : await bare(asset);
    // Other bytes are another file.
    const id = bytes === asset.bytes ? asset.id : await assetId(Uint8Array.from(bytes));
    if (id !== asset.id) renamed.set(asset.id, id);
    assets.push({ ...asset, id, bytes, size: bytes.length });
  }
  return { assets, renamed };
}

/** A picture or PDF without what is written beside it. */
async function bare({ mediaType, bytes }: Asset): Promise<Asset['bytes']> {
  if (mediaType !== 'application/pdf') return withoutMetadata(bytes);
  // Only here: most answers are no PDF.
  const { withoutPdfMetadata } = await import('@/core/formats/pdfMetadata');
  return withoutPdfMetadata(Uint8Array.from(bytes));
}

export const versionOf = async (sitting: Sitting): Promise<PaperVersion | undefined> =>
  sitting.paperVersion === null ? undefined : desk.paperVersions.get([sitting.paperId, sitting.paperVersion]);

/** Notes that a share lies on the server now. */
export async function noteOnServer(shareId: string, at: string): Promise<void> {
  await desk.shares.update(shareId, { onServerAt: at });
}

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
