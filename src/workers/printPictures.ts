import type { LaidPage } from '@/core/intake/paper/drawn';
import type { PaperKit } from '@/core/intake/paper/pdfDrawing';
import { desk } from '@/store/tables';
import { fileOf, onWhite } from './paperCanvas';

/** A printed picture has no more dots a mm: 200 an inch. */
const dotsPerMm = 200 / 25.4;

/** The pictures of laid out pages as a PDF takes them, no larger than they are printed. */
export async function picturesOf(pages: readonly LaidPage[]): Promise<NonNullable<PaperKit['pictures']>> {
  const widest = new Map<string, number>();
  for (const each of pages.flatMap(({ drawn }) => drawn))
    if (each.as === 'picture') widest.set(each.asset, Math.max(widest.get(each.asset) ?? 0, each.w));
  const pictures = new Map<string, { mediaType: 'image/png' | 'image/jpeg'; bytes: Uint8Array }>();
  for (const [id, mm] of widest) {
    const asset = await desk.assets.get(id);
    if (asset) pictures.set(id, await printed(Uint8Array.from(asset.bytes), asset.mediaType, mm));
  }
  return pictures;
}

async function printed(bytes: Uint8Array<ArrayBuffer>, type: string, mm: number) {
  const bitmap = await createImageBitmap(new Blob([bytes], { type }));
  const { canvas } = onWhite(bitmap, (mm * dotsPerMm) / bitmap.width);
  // A photo as one; lines and letters stay sharp.
  const mediaType = type === 'image/jpeg' ? ('image/jpeg' as const) : ('image/png' as const);
  return { mediaType, bytes: await fileOf(canvas, mediaType) };
}
