import { readBarcodes } from 'zxing-wasm/reader';
import { writeBarcode } from 'zxing-wasm/writer';
import type { FindCodes } from './readPage';

/** QR codes (ISO/IEC 18004), both ways. Whoever uses it says first where the library's wasm is. */

/** The squares of a code at error correction level Q, row by row; true is dark. */
export async function codeOf(text: string): Promise<boolean[][]> {
  // The list of its formats is wider than its types say.
  const { symbol } = await writeBarcode(text, {
    format: 'QRCode',
    ecLevel: 'Q',
    scale: 1,
    addQuietZones: false,
  } as never);
  const { data, width, height } = symbol as { data: Uint8ClampedArray; width: number; height: number };
  return Array.from({ length: height }, (_, row) =>
    Array.from({ length: width }, (__, column) => data[row * width + column] === 0),
  );
}

/** The pixels of one page are taken again for the next: a pile would fill the memory faster than it is cleared. */
let pixels = new Uint8ClampedArray(0);
function pixelsFor(count: number): Uint8ClampedArray {
  if (pixels.length !== count * 4) pixels = new Uint8ClampedArray(count * 4);
  return pixels;
}

/** Finds the codes in a picture. */
export const findCodes: FindCodes = async ({ width, height, data }) => {
  const rgba = pixelsFor(width * height);
  for (let at = 0; at < data.length; at++) {
    rgba[at * 4] = rgba[at * 4 + 1] = rgba[at * 4 + 2] = data[at] ?? 255;
    rgba[at * 4 + 3] = 255;
  }
  const found = await readBarcodes({ width, height, data: rgba, colorSpace: 'srgb' } as ImageData, {
    formats: ['QRCode'],
    tryHarder: true,
    maxNumberOfSymbols: 4,
  });
  return found
    .filter(({ isValid }) => isValid)
    .map(({ text, position }) => ({
      text,
      corners: [position.topLeft, position.topRight, position.bottomRight, position.bottomLeft],
    }));
};
