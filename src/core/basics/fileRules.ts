import type { FileRef, PictureRef } from './file';

/** The largest file that is taken from a student. */
export const mostFileBytes = 20 * 1024 * 1024;

/** The most that the files of one attempt take together. */
export const mostAttemptBytes = 100 * 1024 * 1024;

/** The picture lacks the words that who cannot see it needs. */
export const lacksWords = (picture: Pick<PictureRef, 'alt' | 'decoration'>) =>
  !picture.decoration && picture.alt.trim() === '';

/** A picture that can be drawn; null where its bytes or its size are not known. */
export function wholePicture(
  picture: { [Name in keyof PictureRef]?: PictureRef[Name] | undefined } | undefined,
): PictureRef | null {
  const { asset, alt, decoration, width, height } = picture ?? {};
  if (!asset || alt === undefined || decoration === undefined || !width || !height) return null;
  return { asset, alt, decoration, width, height };
}

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
