import type { PDFDocumentProxy } from 'pdfjs-dist';
import jbig2 from 'pdfjs-dist/wasm/jbig2.wasm?url';
import openjpeg from 'pdfjs-dist/wasm/openjpeg.wasm?url';
import qcms from 'pdfjs-dist/wasm/qcms_bg.wasm?url';
import UTIF from 'utif2';
import { Refused } from '@/core/basics/refused';
import { unpacked } from '@/core/formats/unpacked';
import type { Gray } from '@/core/intake/paper/geometry';
import { pageSize } from '@/core/intake/paper/sheet';
import { wholeJpeg } from '@/core/intake/paper/wholeJpeg';
import { onWhite } from './paperCanvas';

/** The pages of scanned files as greys, one at a time: all of them are more than memory holds. */

/** One page of a file, drawn when it is asked for. */
export interface FilePage {
  gray: () => Promise<Gray>;
}

/** The pages of one file. */
export interface FilePages {
  pages: FilePage[];
  close: () => void;
}

/** A scan is read at about so many dots a mm: 200 an inch. */
const dotsPerMm = 200 / 25.4;
const longestSide = Math.round(pageSize.h * dotsPerMm);

/** A picture with more is refused before it is unpacked: it would fill the memory of a small machine. */
const mostPixels = 120_000_000;
const mostPages = 2_000;

const zipBytes = { file: 200 * 1024 * 1024, together: 1024 * 1024 * 1024 };

const begins = (bytes: Uint8Array, ...signature: number[]) =>
  signature.every((byte, at) => bytes[at] === byte);

/**
 * The pages of a PDF, a JPEG, PNG, WebP or TIFF picture, or of a zip of them in the order of their names. By what a file is, not by
 * what it is called.
 *
 * @throws {Refused} where it is none of these, damaged, locked or too large
 */
export async function filePages(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<FilePages> {
  if (begins(bytes, 0x50, 0x4b, 3, 4)) return zipPages(bytes);
  if (isPdf(bytes)) return pdfPages(bytes, name);
  if (begins(bytes, 0x49, 0x49, 0x2a, 0) || begins(bytes, 0x4d, 0x4d, 0, 0x2a)) return tiffPages(bytes, name);
  if (
    begins(bytes, 0xff, 0xd8) ||
    begins(bytes, 0x89, 0x50, 0x4e, 0x47) ||
    begins(bytes, 0x52, 0x49, 0x46, 0x46)
  )
    return { pages: [{ gray: () => pictureGray(bytes, name) }], close: () => undefined };
  throw new Refused('notPages', name);
}

/** A PDF may have something before it (ISO 32000-1, 7.5.2, implementation note 13). */
const isPdf = (bytes: Uint8Array) =>
  new TextDecoder('latin1').decode(bytes.subarray(0, 1024)).includes('%PDF-');

async function zipPages(bytes: Uint8Array<ArrayBuffer>): Promise<FilePages> {
  const inside = [...(await unpacked(bytes, zipBytes))]
    .filter(([path]) => !/(^|\/)(\.|__MACOSX)/.test(path))
    .sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }));
  const all = await Promise.all(inside.map(([path, content]) => filePages(content, path)));
  return { pages: all.flatMap(({ pages }) => pages), close: () => all.forEach(({ close }) => close()) };
}

async function pdfPages(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<FilePages> {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  // Pages that are one JPEG are read directly. What this reader does not take, the one that draws takes, or names.
  const jpegs = await PDFDocument.load(bytes, { updateMetadata: false })
    .then((pdf) => pdf.getPages().map(orNull(wholeJpeg)))
    .catch(() => []);
  const drawing =
    jpegs.length > 0 && jpegs.every((jpeg) => jpeg !== null) ? null : await opened(bytes.slice(), name);
  const count = drawing?.numPages ?? jpegs.length;
  if (count > mostPages) throw new Refused('tooManyPages', name);
  return {
    pages: Array.from({ length: count }, (_, index) => ({
      gray: async () => {
        const jpeg = jpegs[index];
        if (jpeg) return pictureGray(Uint8Array.from(jpeg), `${name}, page ${index + 1}`, 'none');
        if (!drawing) throw new Refused('damagedFile', `${name}, page ${index + 1}`);
        return pdfGray(drawing, index + 1, name);
      },
    })),
    close: () => void drawing?.destroy(),
  };
}

/** A page that is made otherwise than is looked for has none. */
const orNull =
  <T, R>(look: (of: T) => R | null) =>
  (of: T): R | null => {
    try {
      return look(of);
    } catch {
      return null;
    }
  };

/** A canvas for who draws pages where there is no document. */
class Canvases {
  create(width: number, height: number) {
    const canvas = new OffscreenCanvas(width, height);
    return { canvas, context: canvas.getContext('2d', { willReadFrequently: true }) };
  }
  reset(place: { canvas: OffscreenCanvas }, width: number, height: number) {
    place.canvas.width = width;
    place.canvas.height = height;
  }
  destroy(place: { canvas: OffscreenCanvas }) {
    place.canvas.width = place.canvas.height = 0;
  }
}

/** No filters: scans have none. */
class NoFilters {
  addFilter() {
    return 'none';
  }
  addHCMFilter() {
    return 'none';
  }
  addAlphaFilter() {
    return 'none';
  }
  addLuminosityFilter() {
    return 'none';
  }
  addHighlightHCMFilter() {
    return 'none';
  }
  addKnockoutFilter() {
    return 'none';
  }
  createSelectionStyle() {
    return null;
  }
  destroy() {
    // There is nothing to clear away.
  }
}

/** What scanners pack pages with is unpacked by wasm of the same library, served by us. */
const wasm: Readonly<Record<string, string>> = {
  'jbig2.wasm': jbig2,
  'openjpeg.wasm': openjpeg,
  'qcms_bg.wasm': qcms,
};
class OwnWasm {
  async fetch({ filename }: { filename: string }): Promise<Uint8Array> {
    const url = wasm[filename];
    if (url === undefined) throw new Error(`No ${filename} here`);
    return new Uint8Array(await (await fetch(url)).arrayBuffer());
  }
}

async function opened(bytes: Uint8Array<ArrayBuffer>, name: string): Promise<PDFDocumentProxy> {
  const { getDocument, GlobalWorkerOptions } = await import('pdfjs-dist');
  GlobalWorkerOptions.workerSrc = new URL('pdfjs-dist/build/pdf.worker.min.mjs', import.meta.url).toString();
  try {
    return await getDocument({
      // It is handed over, and no longer here.
      data: bytes,
      CanvasFactory: Canvases,
      FilterFactory: NoFilters,
      BinaryDataFactory: OwnWasm,
      useWorkerFetch: false,
      wasmUrl: '/',
      disableFontFace: true,
      useSystemFonts: false,
      isEvalSupported: false,
      maxImageSize: mostPixels,
      // Pictures it unpacks by itself wait for the browser to clear them away, and a pile is faster than that.
      isImageDecoderSupported: false,
      isOffscreenCanvasSupported: false,
    }).promise;
  } catch (error) {
    throw new Refused(
      error instanceof Error && error.name === 'PasswordException' ? 'locked' : 'notPages',
      name,
    );
  }
}

async function pdfGray(pdf: PDFDocumentProxy, number: number, name: string): Promise<Gray> {
  try {
    const page = await pdf.getPage(number);
    const { width, height } = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: longestSide / Math.max(width, height) });
    const canvas = new OffscreenCanvas(Math.round(viewport.width), Math.round(viewport.height));
    const canvasContext = canvas.getContext('2d', { willReadFrequently: true });
    // It draws on any canvas; its types know that of a page alone.
    await page.render({ canvas: null, canvasContext: canvasContext as never, viewport }).promise;
    const gray = grayOf(canvasContext, canvas);
    page.cleanup();
    return released(canvas, gray);
  } catch {
    throw new Refused('damagedFile', `${name}, page ${number}`);
  }
}

function tiffPages(bytes: Uint8Array<ArrayBuffer>, name: string): FilePages {
  const tried = <T>(work: () => T): T => {
    try {
      return work();
    } catch {
      throw new Refused('notPages', name);
    }
  };
  const numberOf = (tag: unknown) => (Array.isArray(tag) ? Number(tag[0]) : Number(tag));
  const all = tried(() => UTIF.decode(bytes.buffer)).filter(
    ({ t256, t257 }) => numberOf(t256) > 0 && numberOf(t257) > 0,
  );
  if (all.length === 0) throw new Refused('notPages', name);
  return {
    pages: all.map((ifd) => ({
      gray: async () => {
        if (numberOf(ifd.t256) * numberOf(ifd.t257) > mostPixels) throw new Refused('pictureTooLarge', name);
        const rgba = tried(() => {
          UTIF.decodeImage(bytes.buffer, ifd);
          return UTIF.toRGBA8(ifd);
        });
        const picture = new ImageData(new Uint8ClampedArray(rgba), ifd.width, ifd.height);
        return drawnGray(await createImageBitmap(picture));
      },
    })),
    close: () => undefined,
  };
}

/** @param imageOrientation a photo says which way up it was taken; within a PDF that says nothing */
async function pictureGray(
  bytes: Uint8Array<ArrayBuffer>,
  name: string,
  imageOrientation: ImageOrientation = 'from-image',
): Promise<Gray> {
  const size = sizeOf(bytes);
  if (size && size.width * size.height > mostPixels) throw new Refused('pictureTooLarge', name);
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(new Blob([bytes]), { imageOrientation });
  } catch {
    throw new Refused('notPages', name);
  }
  return drawnGray(bitmap);
}

/** The size that a JPEG (ITU-T T.81, B.2.2) or PNG (W3C PNG, 11.2.2) says it has; null where it does not say. */
function sizeOf(bytes: Uint8Array): { width: number; height: number } | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (begins(bytes, 0x89, 0x50))
    return bytes.length < 24 ? null : { width: view.getUint32(16), height: view.getUint32(20) };
  for (let at = 2; at + 9 < bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1] ?? 0;
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
    at += 2 + view.getUint16(at + 2);
  }
  return null;
}

/** The greys of a picture, no larger than a page needs. */
function drawnGray(bitmap: ImageBitmap): Gray {
  const scale = longestSide / Math.max(bitmap.width, bitmap.height);
  const { canvas, context } = onWhite(bitmap, scale, { willReadFrequently: true });
  return released(canvas, grayOf(context, canvas));
}

/** Gives the memory of a canvas back at once: a class is scanned faster than it would be looked through for what is no longer used. */
function released<T>(canvas: OffscreenCanvas, result: T): T {
  canvas.width = canvas.height = 0;
  return result;
}

function grayOf(context: OffscreenCanvasRenderingContext2D | null, { width, height }: OffscreenCanvas): Gray {
  const data = context?.getImageData(0, 0, width, height).data ?? new Uint8ClampedArray(width * height * 4);
  const gray = new Uint8Array(width * height);
  // Luma of ITU-R BT.601, in 256ths.
  for (let at = 0; at < gray.length; at++)
    gray[at] = ((data[at * 4] ?? 0) * 77 + (data[at * 4 + 1] ?? 0) * 150 + (data[at * 4 + 2] ?? 0) * 29) >> 8;
  return { width, height, data: gray };
}

/** The pixels of one page are taken again for the next of its size. */
let image: ImageData | null = null;
function imageFor(width: number, height: number): ImageData {
  if (image?.width !== width || image.height !== height) image = new ImageData(width, height);
  return image;
}

/** Greys drawn on a canvas, and something over them. */
function canvasOf({ width, height, data }: Gray): {
  canvas: OffscreenCanvas;
  context: OffscreenCanvasRenderingContext2D | null;
} {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  const image = imageFor(width, height);
  for (let at = 0; at < data.length; at++) {
    image.data[at * 4] = image.data[at * 4 + 1] = image.data[at * 4 + 2] = data[at] ?? 255;
    image.data[at * 4 + 3] = 255;
  }
  context?.putImageData(image, 0, 0);
  return { canvas, context };
}

/** A page with something drawn over it. */
export function grayOfCanvas(page: Gray, draw: (context: OffscreenCanvasRenderingContext2D) => void): Gray {
  const { canvas, context } = canvasOf(page);
  if (context) draw(context);
  return released(canvas, grayOf(context, canvas));
}

/** A page as it is kept. @param quality 0 to 1 */
export async function jpegOf(page: Gray, quality = 0.7): Promise<Uint8Array<ArrayBuffer>> {
  const { canvas } = canvasOf(page);
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality });
  return released(canvas, new Uint8Array(await blob.arrayBuffer()));
}

/** A page that was kept, to be read once more. */
export const keptGray = (bytes: Uint8Array<ArrayBuffer>): Promise<Gray> => pictureGray(bytes, '');
