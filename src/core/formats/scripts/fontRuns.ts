/** A font for some letters. */
export interface FontFace {
  name: string;
  /** Code points, both ends included, in any order. */
  ranges: readonly (readonly [from: number, to: number])[];
  /** Whether what it writes runs from right to left. */
  rightToLeft: boolean;
}

/** A run of a text that one font writes; no font: the usual one. */
export interface FontRun {
  text: string;
  font?: string;
}

/** Ranges as CSS writes them: "U+600-6ff,U+200c" (CSS Fonts 4, unicode-range). */
export const rangesFrom = (css: string): [number, number][] =>
  css.split(',').flatMap((part): [number, number][] => {
    const [, from, to] = /^\s*U\+([0-9a-f]+)(?:-([0-9a-f]+))?\s*$/i.exec(part) ?? [];
    return from === undefined ? [] : [[parseInt(from, 16), parseInt(to ?? from, 16)]];
  });

/** The letters of the usual font: Latin, Greek, Cyrillic, and their signs. */
const usual: readonly (readonly [number, number])[] = [
  ...([
    [0x00, 0x52f],
    [0x1ab0, 0x1fff],
    [0x2000, 0x2bff],
    [0x2c60, 0x2c7f],
    [0xa720, 0xa7ff],
    [0xfb00, 0xfb06],
  ] as const),
];

const within = (ranges: FontFace['ranges'], code: number) =>
  ranges.some(([from, to]) => code >= from && code <= to);

/** Which font writes a letter; null: the usual one, undefined: none here. */
function faceOf(code: number, faces: readonly FontFace[]): FontFace | null | undefined {
  return within(usual, code) ? null : faces.find(({ ranges }) => within(ranges, code));
}

/** A text cut into runs of one font each. What no font here has stays in the usual one. */
export function fontRuns(text: string, faces: readonly FontFace[]): FontRun[] {
  const runs: FontRun[] = [];
  let last: FontFace | null = null;
  for (const letter of text) {
    const code = letter.codePointAt(0) ?? 0;
    // Marks and joiners belong to the letter before them.
    const joins: boolean =
      /^[\p{M}\u200c\u200d]$/u.test(letter) && last !== null && within(last.ranges, code);
    const face: FontFace | null = joins ? last : (faceOf(code, faces) ?? null);
    const run = runs.at(-1);
    if (run && face === last) run.text += letter;
    else runs.push({ text: letter, ...(face && { font: face.name }) });
    last = face;
  }
  return runs;
}

/** The fonts that texts need beside the usual one, and the letters that none of them has. */
export function fontsNeeded(
  texts: readonly string[],
  faces: readonly FontFace[],
): { faces: FontFace[]; missing: string[] } {
  const needed = new Set<FontFace>();
  const missing = new Set<string>();
  for (const letter of new Set(texts.join(''))) {
    const code = letter.codePointAt(0) ?? 0;
    const face = faceOf(code, faces);
    if (face) needed.add(face);
    else if (face === undefined && !/^[\p{C}\p{Z}]$/u.test(letter)) missing.add(letter);
  }
  return { faces: [...needed], missing: [...missing].sort() };
}

const rightToLeftLetter = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}]/u;

/** Whether a paragraph runs from right to left: its first letter does (Unicode Annex 9, P2 and P3). */
export function isRightToLeft(text: string): boolean {
  const first = /\p{L}/u.exec(text)?.[0];
  return first !== undefined && rightToLeftLetter.test(first);
}

/** So many letters of a paragraph from right to left are one line. */
const lineLength = 80;

/**
 * A paragraph from right to left as lines of words in the order in which they stand from left to right: words are placed that
 * way, and only letters within a word are turned by the font.
 */
export function rightToLeftLines(text: string): string[][] {
  const lines: string[][] = [[]];
  let length = 0;
  for (const word of text.split(/\s+/).filter(Boolean)) {
    if (length > 0 && length + word.length > lineLength) {
      lines.push([]);
      length = 0;
    }
    lines.at(-1)?.push(word);
    length += word.length + 1;
  }
  return lines.map(inOrderSeen);
}

/** Words turned round, but for those that run from left to right, which keep their order among themselves. */
function inOrderSeen(words: readonly string[]): string[] {
  const turned: string[] = [];
  let leftToRight: string[] = [];
  const flush = () => {
    turned.unshift(...leftToRight);
    leftToRight = [];
  };
  for (const word of words) {
    if (rightToLeftLetter.test(word)) {
      flush();
      turned.unshift(word);
    } else leftToRight.push(word);
  }
  flush();
  return turned;
}
