import { createCanvas, loadImage, type Canvas } from '@napi-rs/canvas';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import vfs from 'pdfmake/build/vfs_fonts.js';
import { prepareZXingModule as prepareReader } from 'zxing-wasm/reader';
import { prepareZXingModule as prepareWriter } from 'zxing-wasm/writer';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { codeOf, findCodes } from '@/core/intake/paper/codes';
import type { Gray } from '@/core/intake/paper/geometry';
import type { PaperKit } from '@/core/intake/paper/pdfDrawing';
import { pageSize } from '@/core/intake/paper/sheet';
import { drawStrokes } from '@/core/intake/standIn/drawStrokes';
import type { Stroke } from '@/core/intake/standIn/madeUpCopy';

/** What core asks of its surroundings to print and read paper, as Node has it. */

const require = createRequire(import.meta.url);
const wasm = (which: 'reader' | 'writer') =>
  Uint8Array.from(readFileSync(require.resolve(`zxing-wasm/${which}/zxing_${which}.wasm`))).buffer;
prepareReader({ overrides: { wasmBinary: wasm('reader') } });
prepareWriter({ overrides: { wasmBinary: wasm('writer') } });

const fontFile = (name: string) =>
  Uint8Array.from(Buffer.from((vfs as Record<string, string>)[name] ?? '', 'base64'));

export const nodeKit: PaperKit = {
  regular: fontFile('Roboto-Regular.ttf'),
  bold: fontFile('Roboto-Medium.ttf'),
  faces: [],
  codeOf,
};

export { codeOf, findCodes };

export const dotsPerMm = 150 / 25.4;

/** The greys of a canvas. */
export function grayOf(canvas: Canvas): Gray {
  const { width, height } = canvas;
  const { data } = canvas.getContext('2d').getImageData(0, 0, width, height);
  const gray = new Uint8Array(width * height);
  for (let at = 0; at < gray.length; at++)
    gray[at] = ((data[at * 4] ?? 0) * 77 + (data[at * 4 + 1] ?? 0) * 150 + (data[at * 4 + 2] ?? 0) * 29) >> 8;
  return { width, height, data: gray };
}

/** Greys as JPEG. @param quality 0 to 100 */
export function jpegOf({ width, height, data }: Gray, quality: number): Buffer {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  const image = context.createImageData(width, height);
  for (let at = 0; at < data.length; at++) {
    image.data[at * 4] = image.data[at * 4 + 1] = image.data[at * 4 + 2] = data[at] ?? 255;
    image.data[at * 4 + 3] = 255;
  }
  context.putImageData(image, 0, 0);
  return canvas.toBuffer('image/jpeg', quality);
}

export async function grayFromFile(bytes: Buffer): Promise<Gray> {
  const image = await loadImage(bytes);
  const canvas = createCanvas(image.width, image.height);
  canvas.getContext('2d').drawImage(image, 0, 0);
  return grayOf(canvas);
}

/** Draws strokes on a page. */
export const draw = (canvas: Canvas, strokes: readonly Stroke[]): void =>
  drawStrokes(canvas.getContext('2d'), strokes, dotsPerMm);

/** The pages of a PDF in greys, at about 150 dots an inch of a page of A4. */
export async function pagesOf(pdf: Uint8Array): Promise<Canvas[]> {
  const document = await getDocument({ data: Uint8Array.from(pdf), isEvalSupported: false, verbosity: 0 })
    .promise;
  const pages: Canvas[] = [];
  for (let number = 1; number <= document.numPages; number++) {
    const page = await document.getPage(number);
    const { width } = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({ scale: (pageSize.w * dotsPerMm) / width });
    const canvas = createCanvas(Math.round(viewport.width), Math.round(viewport.height));
    // Its canvas does what the browser's does.
    await page.render({
      canvas: canvas as never,
      canvasContext: canvas.getContext('2d') as never,
      viewport,
    }).promise;
    pages.push(canvas);
  }
  await document.destroy();
  return pages;
}
