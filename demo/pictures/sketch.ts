import { sha256 } from '@noble/hashes/sha2.js';
import { concatBytes } from '@noble/hashes/utils.js';
import { zlibSync } from 'fflate';
import { base64From, base64UrlFrom } from '@/core/basics/base64';
import type { PackedAsset } from '@/core/basics/asset';
import type { Chance } from '@/core/basics/chance';

/** Photos of sketches that a made-up student drew: a sheet on a desk, with a tidal triangle on it. */

const width = 360;
const height = 270;
/** Desk, sheet, its ruling, pencil. */
const colours = [
  [122, 96, 70],
  [247, 244, 235],
  [196, 211, 219],
  [52, 50, 60],
];

/** What a sketch shows of the triangle: scheme lines that it earns. */
export interface Sketched {
  /** The stream is laid off from the start, to the east. */
  stream: boolean;
  /** The boat's hour goes from the end of the stream to the track. */
  boat: boolean;
}

type Dots = Uint8Array;
type Spot = readonly [x: number, y: number];

/** A sketch as it was photographed, no two alike; the same chance gives the same. */
export function sketchPhoto({ stream, boat }: Sketched, chance: Chance): PackedAsset & { size: number } {
  const dots = new Uint8Array(width * height);
  const tilt = 0.05 * chance.normal();
  const shake = (size: number) => size * chance.normal();
  sheet(dots, tilt);
  const start: Spot = [150 + shake(8), 215 + shake(6)];
  const hour = 22 + shake(1);
  const top: Spot = [start[0] + shake(3), start[1] - 5.1 * hour];
  pencil(dots, start, [top[0], top[1] - 20], chance);
  const side = stream ? 1 : chance.happens(0.6) ? -1 : 0;
  const end: Spot = [start[0] + side * 2 * hour, start[1] + shake(3)];
  if (side !== 0) {
    pencil(dots, start, end, chance);
    arrowHead(dots, start, end, chance);
  }
  const along = Math.sqrt(25 - 4) * hour;
  const meets: Spot = boat ? [top[0], start[1] - along] : [start[0] - 2 * hour, start[1] - 4.4 * hour];
  pencil(dots, boat ? end : start, meets, chance);
  arrowHead(dots, boat ? end : start, meets, chance);
  const bytes = png(dots);
  return {
    id: base64UrlFrom(sha256(bytes)),
    name: 'sketch.png',
    mediaType: 'image/png',
    base64: base64From(bytes),
    size: bytes.length,
  };
}

/** A ruled sheet that lies a little askew. */
function sheet(dots: Dots, tilt: number): void {
  const [halfAcross, halfDown, apart] = [150, 118, 18];
  for (let row = 0; row < height; row++) {
    const y = row - height / 2;
    const [above, below] = [(y - halfDown) / tilt, (y + halfDown) / tilt];
    const from = Math.max(-halfAcross - tilt * y, Math.min(above, below));
    const to = Math.min(halfAcross - tilt * y, Math.max(above, below));
    if (from <= to)
      dots.fill(1, row * width + Math.ceil(from + width / 2), row * width + Math.floor(to + width / 2) + 1);
  }
  const rule = (across: number, down: number) => {
    const turned = 1 + tilt * tilt;
    const x = Math.round((across - tilt * down) / turned + width / 2);
    const y = Math.round((down + tilt * across) / turned + height / 2);
    if (x >= 0 && x < width && y >= 0 && y < height) dots[y * width + x] = 2;
  };
  for (let down = -halfDown; down <= halfDown; down += apart)
    for (let across = -halfAcross; across <= halfAcross; across++) rule(across, down);
  for (let across = -halfAcross; across <= halfAcross; across += apart)
    for (let down = -halfDown; down <= halfDown; down++) rule(across, down);
}

/** A line as a hand draws it. */
function pencil(dots: Dots, [x, y]: Spot, [toX, toY]: Spot, chance: Chance): void {
  const steps = Math.ceil(Math.hypot(toX - x, toY - y));
  const bend = 2 * chance.normal();
  for (let step = 0; step <= steps; step++) {
    const part = step / Math.max(1, steps);
    const off = bend * Math.sin(Math.PI * part);
    const slope = Math.atan2(toY - y, toX - x) + Math.PI / 2;
    dot(dots, x + (toX - x) * part + off * Math.cos(slope), y + (toY - y) * part + off * Math.sin(slope));
  }
}

function arrowHead(dots: Dots, [x, y]: Spot, [toX, toY]: Spot, chance: Chance): void {
  const along = Math.atan2(toY - y, toX - x);
  for (const turn of [Math.PI - 0.5, Math.PI + 0.5])
    pencil(dots, [toX, toY], [toX + 11 * Math.cos(along + turn), toY + 11 * Math.sin(along + turn)], chance);
}

function dot(dots: Dots, x: number, y: number): void {
  for (const [dx, dy] of [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
  ] as const) {
    const [column, row] = [Math.round(x) + dx, Math.round(y) + dy];
    if (column >= 0 && column < width && row >= 0 && row < height) dots[row * width + column] = 3;
  }
}

/** Dots of four colours as a PNG (W3C, Portable Network Graphics, third edition): two bits each. */
function png(dots: Dots): Uint8Array {
  const lineBytes = width / 4;
  const raw = new Uint8Array(height * (1 + lineBytes));
  // Each row begins with a byte that says it is not filtered.
  for (let place = 0, at = 0; place < dots.length; place += 4, at++) {
    if (place % width === 0) at++;
    // Without a function made for each four dots: that is two million times in the demo.
    const left = ((dots[place] ?? 0) << 2) | (dots[place + 1] ?? 0);
    const right = ((dots[place + 2] ?? 0) << 2) | (dots[place + 3] ?? 0);
    raw[at] = (left << 4) | right;
  }
  const header = new Uint8Array(13);
  const view = new DataView(header.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  header.set([2, 3, 0, 0, 0], 8);
  const parts = [
    Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('PLTE', Uint8Array.from(colours.flat())),
    // With little memory: what it takes for each of the demo’s sketches is collected again while the desk is laid out.
    chunk('IDAT', zlibSync(raw, { level: 1, mem: 0 })),
    chunk('IEND', new Uint8Array()),
  ];
  return concatBytes(...parts);
}

function chunk(name: string, data: Uint8Array): Uint8Array {
  const whole = new Uint8Array(12 + data.length);
  const view = new DataView(whole.buffer);
  view.setUint32(0, data.length);
  whole.set(new TextEncoder().encode(name), 4);
  whole.set(data, 8);
  view.setUint32(8 + data.length, crc32(whole.subarray(4, 8 + data.length)));
  return whole;
}

/** CRC-32 as PNG has it (ISO 3309), bit by bit: a few kilobytes are soon done. */
function crc32(bytes: Uint8Array): number {
  let rest = 0xffffffff;
  for (const byte of bytes) {
    rest ^= byte;
    for (let bit = 0; bit < 8; bit++) rest = (rest >>> 1) ^ (rest & 1 ? 0xedb88320 : 0);
  }
  return (rest ^ 0xffffffff) >>> 0;
}
