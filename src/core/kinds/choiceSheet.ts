import { Unreadable, type RowCells } from './sheet/SheetKind';
import { plainText } from '../basics/richWords';
import type { Option } from './options';
import { optionLetter } from './optionLetter';

/** The places of the options a key names: by letter or number ("B", "A, C", "2"), or by their own words. */
export function keyPlaces({ options, key }: RowCells): number[] {
  const same = (text: string) =>
    options.findIndex((option) => option.trim().toLowerCase() === text.trim().toLowerCase());
  const whole = same(key);
  if (whole >= 0) return [whole];
  const named = key
    .split(/[,;|]/)
    .map((text) => text.trim())
    .filter(Boolean);
  const places = named.map((text) => {
    const own = same(text);
    if (own >= 0) return own;
    const letter = /^[a-z]$/i.test(text) ? text.toUpperCase().charCodeAt(0) - 65 : -1;
    const place = letter >= 0 ? letter : /^\d{1,2}$/.test(text) ? Number(text) - 1 : -1;
    return place < options.length ? place : -1;
  });
  return places.includes(-1) ? [] : [...new Set(places)].sort((a, b) => a - b);
}

/** The options of a row, and the ids of those that its key names. */
export function choicesOf(cells: RowCells, newId: () => string): { options: Option[]; right: string[] } {
  if (cells.options.length > 50) throw new Unreadable('tooManyOptions', String(cells.options.length));
  const options = cells.options.map((text) => ({ id: newId(), text, comment: '' }));
  const right = keyPlaces(cells).flatMap((place) => options[place]?.id ?? []);
  if (cells.key && right.length === 0) throw new Unreadable('keyMatchesNothing', cells.key);
  return { options, right };
}

/** Options as cells, and the letters of the right ones. */
export function optionCells(options: readonly Option[], right: readonly (string | null)[]): RowCells {
  const named = options.flatMap((option, index) => (right.includes(option.id) ? optionLetter(index) : []));
  return { options: options.map(({ text }) => plainText(text)), key: named.join(', ') };
}
