import { z } from 'zod';
import { assetId, unpackedAsset } from '../../basics/assetBytes';
import { Id } from '../../basics/common';
import { MarksBack, ShareContent } from '../../model/share';
import { Sealed, sealed, unsealed } from './sealed';
import { codePassword } from './code';
import { damaged, damagedBy, unwrapped, wrapped, type RefusedFile } from './wrapping';

/** A share of marking on its way to another marker, and marks on their way back: both sealed. See docs/formats.md. */

type Chance = (length: number) => Uint8Array;

/** A share as it lies in a file or on the server: its code opens it. */
export async function shareText(content: ShareContent, code: string, chance: Chance): Promise<string> {
  const inside = await wrapped('share', content.title, content);
  return wrapped('sealedShare', content.title, await sealed(inside, codePassword(code), chance));
}

/** What became of a file that should hold a share. */
export type ShareRead = { outcome: 'read'; content: ShareContent } | { outcome: 'wrongCode' } | RefusedFile;

/** Opens a share. Nothing is thrown, whatever the bytes are. */
export async function readShare(bytes: Uint8Array, code: string): Promise<ShareRead> {
  const outer = await unwrapped(bytes, ['sealedShare']);
  if (outer.outcome === 'refused') return outer;
  const seal = Sealed.safeParse(outer.content);
  if (!seal.success) return damagedBy(seal.error, 'content');
  if (outer.changed) return damaged('content', 'as its sha256 says');
  const text = await unsealed(seal.data, codePassword(code));
  if (text === null) return { outcome: 'wrongCode' };
  const inner = await unwrapped(new TextEncoder().encode(text), ['share']);
  if (inner.outcome === 'refused') return inner;
  const content = ShareContent.safeParse(inner.content);
  if (!content.success) return damagedBy(content.error, 'content');
  for (const [at, asset] of content.data.assets.entries())
    if ((await assetId(unpackedAsset(asset).bytes)) !== asset.id)
      return damaged(`content.assets.${at}`, 'as its id says');
  return { outcome: 'read', content: content.data };
}

/** The share's secret is drawn by chance and long: turning it over many times makes it no safer. */
const secretIterations = 1;

/** Which share the marks are of can be seen; the marks cannot. */
const SealedMarks = z.object({ shareId: Id, seal: Sealed });

/** Marks on their way back, as they lie in a file or on the server. */
export async function marksText(
  back: MarksBack,
  title: string,
  secret: string,
  chance: Chance,
): Promise<string> {
  const seal = await sealed(await wrapped('marks', title, back), secret, chance, secretIterations);
  return wrapped('sealedMarks', title, { shareId: back.shareId, seal });
}

/** What became of a file that should hold marks; `unknown`: of a share that this desk did not give. */
export type MarksRead =
  { outcome: 'read'; back: MarksBack } | { outcome: 'unknown'; title: string } | RefusedFile;

/**
 * Opens marks that came back. Nothing is thrown, whatever the bytes are.
 *
 * @param secretOf the secret of a share of this desk, by id
 */
export async function readMarks(
  bytes: Uint8Array,
  secretOf: (shareId: string) => string | undefined,
): Promise<MarksRead> {
  const outer = await unwrapped(bytes, ['sealedMarks']);
  if (outer.outcome === 'refused') return outer;
  const lies = SealedMarks.safeParse(outer.content);
  if (!lies.success) return damagedBy(lies.error, 'content');
  if (outer.changed) return damaged('content', 'as its sha256 says');
  const secret = secretOf(lies.data.shareId);
  if (secret === undefined) return { outcome: 'unknown', title: outer.title };
  const text = await unsealed(lies.data.seal, secret);
  if (text === null) return damaged('content.seal', 'sealed with the secret of its share');
  const inner = await unwrapped(new TextEncoder().encode(text), ['marks']);
  if (inner.outcome === 'refused') return inner;
  const back = MarksBack.safeParse(inner.content);
  if (!back.success) return damagedBy(back.error, 'content');
  return back.data.shareId === lies.data.shareId
    ? { outcome: 'read', back: back.data }
    : damaged('content.shareId', 'the share it is of');
}
