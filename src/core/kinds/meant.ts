import type { RichText } from '../basics/richText';
import { plainText } from '../basics/richWords';
import { forgiveAll, forgiven } from './forgiving';

/** Something to choose, to put in order or to pair with. */
interface Named {
  id: string;
  text: RichText;
}

const plain = (text: string) => forgiven(text, forgiveAll);

/** The place a letter or a number names, from 0; -1 where it names none: "B", "b)", "2." */
function placeNamed(text: string): number {
  const named = /^(?:([A-Za-z])|(\d{1,2}))[).:]?$/.exec(text.trim());
  if (!named) return -1;
  return named[1] === undefined ? Number(named[2]) - 1 : named[1].toUpperCase().charCodeAt(0) - 65;
}

/**
 * The one of these that someone means who writes this: by its own words, or by its letter or number where no words are so;
 * "B  ebb stream" by both. Undefined where it is none of them.
 */
export function meant<R extends Named>(rows: readonly R[], text: string): R | undefined {
  const said = plain(text);
  const own = rows.find((row) => plain(plainText(row.text)) === said);
  if (own) return own;
  const [, letter = '', rest = ''] = /^\s*(\w{1,2})[).:]?\s+(.*)$/s.exec(text) ?? [];
  const both = rows[placeNamed(letter)];
  if (both && plain(plainText(both.text)) === plain(rest)) return both;
  // Where the words themselves are letters or numbers, another one names no place.
  return rows.some((row) => placeNamed(plainText(row.text)) >= 0) ? undefined : rows[placeNamed(text)];
}

/**
 * Several of these, in the order in which they are written: with semicolons, bars, commas or new lines between, or their letters
 * alone ("ACD"). What has such a sign in its own words is found too. Null where some of it is none of them, or one twice.
 */
export function meantSeveral<R extends Named>(
  rows: readonly R[],
  text: string,
  between = /([;|,\n])/,
): R[] | null {
  const pieces = text.split(between);
  const found: R[] = [];
  for (let from = 0; from < pieces.length;) {
    if (!pieces[from]?.trim()) {
      from += 2;
      continue;
    }
    // The longest run first: commas within the words of an option are no separators.
    let to = pieces.length;
    let row: R | undefined;
    while (to > from && !row) {
      row = meant(rows, pieces.slice(from, to).join(''));
      if (!row) to -= 2;
    }
    if (!row) return from === 0 ? lettersOf(rows, text) : null;
    found.push(row);
    from = to + 1;
  }
  return new Set(found).size === found.length ? found : null;
}

/** "ACD" */
function lettersOf<R extends Named>(rows: readonly R[], text: string): R[] | null {
  const letters = /^[A-Za-z]{2,26}$/.test(text.trim()) ? [...text.trim()] : [];
  const found = letters.flatMap((letter) => rows[placeNamed(letter)] ?? []);
  return letters.length > 0 && found.length === letters.length && new Set(found).size === found.length
    ? found
    : null;
}
