import arabic from '@fontsource/noto-sans-arabic/unicode.json';
import bengali from '@fontsource/noto-sans-bengali/unicode.json';
import devanagari from '@fontsource/noto-sans-devanagari/unicode.json';
import hebrew from '@fontsource/noto-sans-hebrew/unicode.json';
import korean from '@fontsource/noto-sans-kr/unicode.json';
import chinese from '@fontsource/noto-sans-sc/unicode.json';
import thai from '@fontsource/noto-sans-thai/unicode.json';
import { rangesFrom, type FontFace } from '@/core/formats/scripts/fontRuns';

/** A font for letters that the usual one has not, and where it is fetched from when it is needed. */
export interface FetchedFace extends FontFace {
  url: string;
}

const files = import.meta.glob<string>(
  [
    '/node_modules/@fontsource/noto-sans-{arabic,hebrew,devanagari,bengali,thai}/files/*-{arabic,hebrew,devanagari,bengali,thai}-400-normal.woff',
    '/node_modules/@fontsource/noto-sans-{sc,kr}/files/noto-sans-{sc,kr}-[0-9]*-400-normal.woff',
  ],
  { query: '?url', import: 'default', eager: true },
);
const urlOf = new Map(
  Object.entries(files).map(([path, url]) => [path.slice(path.lastIndexOf('/') + 1), url]),
);

/** The parts of a family, each a face of its own. */
function facesOf(
  family: string,
  parts: Readonly<Record<string, string>>,
  only: RegExp,
  rightToLeft = false,
): FetchedFace[] {
  return Object.entries(parts).flatMap(([part, ranges]): FetchedFace[] => {
    const name = part.replace(/[[\]]/g, '');
    const url = only.test(name) ? urlOf.get(`noto-sans-${family}-${name}-400-normal.woff`) : undefined;
    return url === undefined
      ? []
      : [{ name: `${family} ${name}`, ranges: rangesFrom(ranges), rightToLeft, url }];
  });
}

const parts = /^\d+$/;

/** Every face there is, each fetched only for letters that need it. */
export const scriptFaces: readonly FetchedFace[] = [
  ...facesOf('arabic', arabic, /^arabic$/, true),
  ...facesOf('hebrew', hebrew, /^hebrew$/, true),
  ...facesOf('devanagari', devanagari, /^devanagari$/),
  ...facesOf('bengali', bengali, /^bengali$/),
  ...facesOf('thai', thai, /^thai$/),
  ...facesOf('sc', chinese, parts),
  ...facesOf('kr', korean, parts),
];
