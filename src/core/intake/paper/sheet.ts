import type { Rect } from '../../basics/rect';

/** The size of a page and of what every page has, in mm. A4 (ISO 216). */
export const pageSize = { w: 210, h: 297 };

/** Solid squares near the corners, by which a scan is set straight: upper left, upper right, lower right, lower left. */
export const cornerSize = 5;
/** So far from the edges: a scan that is turned by three degrees still has them whole. */
const edge = 12;
const [left, right, top, bottom] = [
  edge,
  pageSize.w - edge - cornerSize,
  edge,
  pageSize.h - edge - cornerSize,
];
export const corners: readonly Rect[] = [
  [left, top],
  [right, top],
  [right, bottom],
  [left, bottom],
].map(([x = 0, y = 0]) => ({ x, y, w: cornerSize, h: cornerSize }));

/** The code that says which page it is; it stands apart from the middle, so that it tells which way is up. */
export const codeRect: Rect = { x: 165, y: 10, w: 23, h: 23 };

/** Where the name is printed or written. */
export const nameRect: Rect = { x: 21, y: 12, w: 120, h: 12 };

/** What is laid out stands within. */
export const body = { x: 18, y: 37, w: 174, bottom: 275 };

/** A box to tick. */
export const boxSize = 4.6;

/** What the code of a page says. */
export interface PageCode {
  printId: string;
  /** From 1. */
  copy: number;
  /** From 1. */
  page: number;
}

const mark = 'GP1';

export const codeText = ({ printId, copy, page }: PageCode): string => [mark, printId, copy, page].join(':');

/** What the sticker of a student says. */
export const stickerText = (studentId: string): string => `GS1:${studentId}`;

/** Whose sticker a code is; null for any other code. */
export const stickerFrom = (text: string): string | null => /^GS1:([\w-]{1,64})$/.exec(text)?.[1] ?? null;

/** The code of a page of ours; null for any other code. */
export function codeFrom(text: string): PageCode | null {
  const [, printId = '', copy = '', page = ''] = /^GP1:([\w-]{1,64}):(\d{1,4}):(\d{1,3})$/.exec(text) ?? [];
  return printId ? { printId, copy: Number(copy), page: Number(page) } : null;
}
