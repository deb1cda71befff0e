import { describe, expect, it } from 'vitest';
import { chanceFrom } from '../../basics/chance';
import type { Gray } from './geometry';
import {
  inkMapOf,
  isBlankSheet,
  liesUpsideDown,
  looksFirst,
  pileMark,
  placesInPile,
  type PileCut,
  type PileLook,
} from './piles';
import { stickerFrom, stickerText } from './sheet';

const perMm = 150 / 25.4;
const [width, height] = [Math.round(210 * perMm), Math.round(297 * perMm)];

const empty = (): Gray => ({ width, height, data: new Uint8Array(width * height).fill(255) });

/** Dark bars, in mm: lines of print or of writing. */
function withBars(page: Gray, bars: readonly (readonly [number, number, number, number])[]): Gray {
  const data = Uint8Array.from(page.data);
  for (const [x, y, w, h] of bars)
    for (let row = Math.round(y * perMm); row < (y + h) * perMm; row++)
      data.fill(20, row * width + Math.round(x * perMm), row * width + Math.round((x + w) * perMm));
  return { width, height, data };
}

const turned = (page: Gray): Gray => ({ ...page, data: Uint8Array.from(page.data).reverse() });

const first = withBars(empty(), [
  [20, 15, 90, 6],
  [20, 40, 170, 2],
  [20, 48, 140, 2],
  [20, 120, 165, 2],
]);
const second = withBars(empty(), [
  [20, 25, 170, 2],
  [20, 90, 100, 2],
  [20, 180, 160, 2],
]);

/** A page of a class that has written much on it, fed a little elsewhere. */
function written(blank: Gray, seed: number): Gray {
  const chance = chanceFrom(seed);
  const bars = Array.from({ length: 120 }, () => {
    const [x, y] = [20 + chance.share() * 150, 55 + chance.share() * 220];
    return [x, y, 4 + chance.share() * 12, 0.7] as const;
  });
  const shifted = new Uint8Array(width * height).fill(255);
  const by = Math.round((chance.share() * 8 + -4) * perMm);
  for (let row = 0; row < height; row++) {
    const from = row - by;
    if (from >= 0 && from < height)
      shifted.set(blank.data.subarray(from * width, (from + 1) * width), row * width);
  }
  return withBars({ width, height, data: shifted }, bars);
}

const print = { id: 'print', pages: [[], []], copies: [null] };
const none: PileLook = { blank: false, first: false, sticker: false };

const placesOf = (cut: PileCut, looks: readonly PileLook[]) =>
  placesInPile(
    looks.map((look, index) => pileMark(cut, look, index, 2)),
    print,
  ).map((place) => place && `${place.copy}.${place.page}`);

describe('a pile of papers without codes', () => {
  it('is cut by so many pages each, behind the copies that are here', () => {
    expect(placesOf('count', [none, none, none, none, none])).toEqual(['2.1', '2.2', '3.1', '3.2', '4.1']);
  });

  it('is cut by blank sheets between, however many lie together', () => {
    const blank = { ...none, blank: true };
    expect(placesOf('blankSheets', [blank, none, blank, none, none, blank, blank, none])).toEqual([
      ...[null, '2.1', null, '3.1', '3.2', null, null, '4.1'],
    ]);
  });

  it('is cut by first pages and by stickers; a page too many has no place', () => {
    const begins = { ...none, first: true, sticker: true };
    for (const cut of ['firstPages', 'stickers'] as const)
      expect(placesOf(cut, [none, begins, none, none, begins, begins, none])).toEqual([
        ...['2.1', '3.1', '3.2', null, '4.1', '5.1', '5.2'],
      ]);
  });

  it('knows a first page by its print, also full of writing, moved and upside down', () => {
    const blanks = [inkMapOf(first), inkMapOf(second)];
    for (let seed = 1; seed <= 4; seed++) {
      expect(looksFirst(inkMapOf(written(first, seed)), blanks)).toBe(true);
      expect(looksFirst(inkMapOf(turned(written(first, seed))), blanks)).toBe(true);
      expect(looksFirst(inkMapOf(written(second, seed)), blanks)).toBe(false);
      expect(liesUpsideDown(inkMapOf(turned(written(first, seed))), inkMapOf(first))).toBe(true);
      expect(liesUpsideDown(inkMapOf(written(first, seed)), inkMapOf(first))).toBe(false);
    }
    expect(looksFirst(inkMapOf(empty()), blanks)).toBe(false);
  });

  it('takes a sheet for blank that has only the shadows of its edges', () => {
    expect(isBlankSheet(empty())).toBe(true);
    expect(isBlankSheet(withBars(empty(), [[0, 0, 8, 297]]))).toBe(true);
    // One written word.
    expect(isBlankSheet(withBars(empty(), [[60, 60, 24, 0.8]]))).toBe(false);
  });
});

describe('the sticker of a student', () => {
  it('says whose it is, and is no code of a page', () => {
    expect(stickerFrom(stickerText('student-01'))).toBe('student-01');
    expect(stickerFrom('GP1:print:1:1')).toBeNull();
    expect(stickerFrom('GS1:two words')).toBeNull();
  });
});
