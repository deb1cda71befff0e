import { z } from 'zod';
import { Id, Line } from './common';

/** The largest file that is taken from a student. */
export const mostFileBytes = 20 * 1024 * 1024;

/** The most that the files of one attempt take together. */
export const mostAttemptBytes = 100 * 1024 * 1024;

/** What is said of a file where it is used. Its bytes are kept apart, under its id, which is drawn from them. */
export const FileRef = z.object({ id: Id, name: Line, mediaType: Line, size: z.number().int().min(0) });
export type FileRef = z.infer<typeof FileRef>;

/** A picture where it stands: which one, what it says to who cannot see it, and its size in its own pixels. */
export const PictureRef = z.object({
  asset: Id,
  /** What it shows, in words; empty only while it is not written yet, or for a decoration. */
  alt: Line,
  /** Says nothing that matters: read over. */
  decoration: z.boolean(),
  width: z.number().int().min(1).max(20_000),
  height: z.number().int().min(1).max(20_000),
});
export type PictureRef = z.infer<typeof PictureRef>;

/** The picture lacks the words that who cannot see it needs. */
export const lacksWords = (picture: Pick<PictureRef, 'alt' | 'decoration'>) =>
  !picture.decoration && picture.alt.trim() === '';

/** The ids of all pictures that stand in something, however deep. */
export function assetsIn(value: unknown): Set<string> {
  const found = new Set<string>();
  const walk = (each: unknown) => {
    if (Array.isArray(each)) each.forEach(walk);
    else if (each !== null && typeof each === 'object')
      for (const [name, inside] of Object.entries(each))
        if (name === 'asset' && typeof inside === 'string') found.add(inside);
        else walk(inside);
  };
  walk(value);
  return found;
}

const signatures: [mediaType: string, offset: number, bytes: number[]][] = [
  ['image/png', 0, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]],
  ['image/jpeg', 0, [0xff, 0xd8, 0xff]],
  ['image/gif', 0, [0x47, 0x49, 0x46, 0x38]],
  ['image/webp', 8, [0x57, 0x45, 0x42, 0x50]],
];

/**
 * What sort of picture these bytes are, by what they begin with and not by what they are called; null when they are
 * none that is shown.
 *
 * Source: the signatures of PNG (W3C, section 5.2), JPEG (ITU-T T.81, B.1.1.3), GIF89a (section 17) and WebP (RFC 9649).
 */
export function pictureType(bytes: Uint8Array): string | null {
  const met = signatures.find(([, offset, begin]) =>
    begin.every((byte, index) => bytes[offset + index] === byte),
  );
  return met?.[0] ?? null;
}

/** A file whose sort says that it is a picture that can be shown. */
export const isPicture = ({ mediaType }: Pick<FileRef, 'mediaType'>) =>
  signatures.some(([shown]) => shown === mediaType);
