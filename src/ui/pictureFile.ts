import { WordedFault } from '@/words/wordedFault';
import { pictureType } from '@/core/basics/fileRules';
import type { FileBytes } from './files';

/** The longest side that a picture is kept with; larger ones are scaled down. */
const longest = 2000;

export interface SizedPicture extends FileBytes {
  width: number;
  height: number;
}

/**
 * A picture as it is kept: of a sort that every browser shows, no side longer than 2000 pixels. Whatever else is in
 * the file (places, names of devices) is left behind.
 *
 * @throws {Error} in words for the reader, when it is no picture that can be read
 */
export async function pictureFile(file: Blob & { name?: string }): Promise<SizedPicture> {
  // Only who adds a photo needs it.
  const { withoutMetadata } = await import('@/core/basics/pictureMetadata');
  const bytes = withoutMetadata(new Uint8Array(await file.arrayBuffer()));
  const name = file.name || 'picture';
  const type = pictureType(bytes);
  const drawn = await drawable(file, name);
  const { width, height } = drawn;
  if (type && Math.max(width, height) <= longest) return { name, mediaType: type, bytes, width, height };
  const scale = Math.min(1, longest / Math.max(width, height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(width * scale));
  canvas.height = Math.max(1, Math.round(height * scale));
  canvas.getContext('2d')?.drawImage(drawn, 0, 0, canvas.width, canvas.height);
  const mediaType = type === 'image/jpeg' ? type : 'image/png';
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, mediaType, 0.85));
  if (!blob) throw new WordedFault(`${name} couldn’t be scaled down.`);
  return {
    name,
    mediaType,
    bytes: new Uint8Array(await blob.arrayBuffer()),
    width: canvas.width,
    height: canvas.height,
  };
}

/** The picture of a file, read by the browser as an image: nothing in it runs. */
async function drawable(file: Blob, name: string): Promise<HTMLImageElement> {
  const href = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = href;
    await image.decode();
    if (image.naturalWidth === 0) throw new Error('no size');
    image.width = image.naturalWidth;
    image.height = image.naturalHeight;
    return image;
  } catch {
    throw new WordedFault(`${name} can’t be read as a picture.`);
  } finally {
    URL.revokeObjectURL(href);
  }
}
