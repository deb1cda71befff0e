import { sumBy } from 'remeda';
import { pictureType } from './fileRules';

type Bytes = Uint8Array<ArrayBuffer>;

/**
 * A picture without what is written beside it: who took it, where and with what. Its pixels, colours and which way up it is
 * stay as they are; of a sort that is not known, nothing is changed.
 *
 * Source: JPEG (ITU-T T.81, B.1.1.3), Exif 2.3 (CIPA DC-008, 4.5 and 4.6.4), PNG (W3C, third edition, 5.3 and 11.3), WebP
 * (RFC 9649, 2.7).
 *
 * @returns the same bytes where there is nothing to take out
 */
export function withoutMetadata(bytes: Bytes): Bytes {
  switch (pictureType(bytes)) {
    case 'image/jpeg':
      return jpegWithout(bytes);
    case 'image/png':
      return pngWithout(bytes);
    case 'image/webp':
      return webpWithout(bytes);
    default:
      return bytes;
  }
}

const word = (bytes: Uint8Array, at: number) => ((bytes[at] ?? 0) << 8) | (bytes[at + 1] ?? 0);
const long = (bytes: Uint8Array, at: number) => word(bytes, at) * 65_536 + word(bytes, at + 2);
const ascii = (bytes: Uint8Array, at: number, length: number) =>
  String.fromCharCode(...bytes.subarray(at, at + length));

function joined(parts: readonly Uint8Array[]): Bytes {
  const whole = new Uint8Array(sumBy(parts, ({ length }) => length));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/** Segments that say how the picture is to be drawn: JFIF, the colour profile, and Adobe's transform. */
const drawnBy = new Set([0xe0, 0xe2, 0xee]);

function jpegWithout(bytes: Bytes): Bytes {
  const parts: Uint8Array[] = [bytes.subarray(0, 2)];
  let taken = false;
  let at = 2;
  while (at + 4 <= bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0;
    // The scan begins: from here on it is the picture itself.
    if (marker === 0xda) break;
    const end = at + 2 + word(bytes, at + 2);
    if (end > bytes.length) return bytes;
    const application = (marker >= 0xe0 && marker <= 0xef) || marker === 0xfe;
    if (!application || drawnBy.has(marker)) parts.push(bytes.subarray(at, end));
    else {
      taken = true;
      const turned = marker === 0xe1 ? orientationIn(bytes, at + 4) : null;
      if (turned !== null && turned !== 1) parts.push(orientationSegment(turned));
    }
    at = end;
  }
  if (!taken) return bytes;
  return joined([...parts, bytes.subarray(at)]);
}

/** Which way up an Exif segment says the picture is, 1 to 8; null where it says nothing. */
function orientationIn(bytes: Uint8Array, at: number): number | null {
  if (ascii(bytes, at, 6) !== 'Exif\0\0') return null;
  const tiff = at + 6;
  const little = ascii(bytes, tiff, 2) === 'II';
  const short = (place: number) =>
    little ? (bytes[place] ?? 0) | ((bytes[place + 1] ?? 0) << 8) : word(bytes, place);
  const offset = little ? short(tiff + 4) + short(tiff + 6) * 65_536 : long(bytes, tiff + 4);
  const count = short(tiff + offset);
  for (let entry = 0; entry < Math.min(count, 200); entry++) {
    const place = tiff + offset + 2 + entry * 12;
    if (short(place) === 0x0112) {
      const value = short(place + 8);
      return value >= 1 && value <= 8 ? value : null;
    }
  }
  return null;
}

/** An Exif segment that says which way up, and nothing else. */
function orientationSegment(value: number): Uint8Array {
  return Uint8Array.from([
    ...[0xff, 0xe1, 0x00, 0x22],
    ...[0x45, 0x78, 0x69, 0x66, 0x00, 0x00],
    // Big-endian TIFF, its one directory at 8 with one entry: tag 0x0112, one short.
    ...[0x4d, 0x4d, 0x00, 0x2a, 0x00, 0x00, 0x00, 0x08],
    ...[0x00, 0x01, 0x01, 0x12, 0x00, 0x03, 0x00, 0x00, 0x00, 0x01, 0x00, value, 0x00, 0x00],
    ...[0x00, 0x00, 0x00, 0x00],
  ]);
}

const pngBeside = new Set(['tEXt', 'zTXt', 'iTXt', 'eXIf', 'tIME']);

function pngWithout(bytes: Bytes): Bytes {
  const parts: Uint8Array[] = [bytes.subarray(0, 8)];
  let taken = false;
  for (let at = 8; at + 12 <= bytes.length;) {
    const end = at + 12 + long(bytes, at);
    if (end > bytes.length) return bytes;
    if (pngBeside.has(ascii(bytes, at + 4, 4))) taken = true;
    else parts.push(bytes.subarray(at, end));
    at = end;
  }
  return taken ? joined(parts) : bytes;
}

function webpWithout(bytes: Bytes): Bytes {
  const parts: Uint8Array[] = [];
  let taken = false;
  for (let at = 12; at + 8 <= bytes.length;) {
    const size = new DataView(bytes.buffer, bytes.byteOffset).getUint32(at + 4, true);
    const end = at + 8 + size + (size % 2);
    if (at + 8 + size > bytes.length) return bytes;
    const name = ascii(bytes, at, 4);
    if (name === 'EXIF' || name === 'XMP ') taken = true;
    else if (name === 'VP8X') {
      // It says which chunks follow: Exif is bit 3, XMP bit 2.
      const header = bytes.slice(at, end);
      header[8] = (header[8] ?? 0) & ~0x0c;
      parts.push(header);
    } else parts.push(bytes.subarray(at, end));
    at = end;
  }
  if (!taken) return bytes;
  const whole = joined([bytes.slice(0, 12), ...parts]);
  new DataView(whole.buffer).setUint32(4, whole.length - 8, true);
  return whole;
}
