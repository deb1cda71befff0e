import { Unreadable, withoutShare, withShare, type SheetKind } from '../sheet/SheetKind';
import { plainText } from '../../basics/richWords';
import { segmentsOf } from './gapText';
import type { Gap, Gaps } from './schema';

const gapPattern = /\[([^[\]]*)\]/g;
/** Behind the right one of those that are picked from. */
const tick = /\s*✓$/;

/**
 * The key is the text with what belongs into its gaps: "The [flood | flood stream] sets [north / south ✓]". What is typed
 * stands between strokes, what is picked between slashes with a tick behind the right one.
 */
export const gapsSheet: SheetKind<Gaps> = {
  turn: 80,
  suits: ({ options, key }) => options.length === 0 && key.search(gapPattern) >= 0,
  read: (empty, { key }, newId) => {
    const gaps: Gap[] = [];
    const text = key.replace(gapPattern, (_, inside: string) => {
      gaps.push(gapFrom(inside, gaps.length + 1, newId));
      return `[${gaps.length}]`;
    });
    if (gaps.length === 0) throw new Unreadable('noGaps', key);
    return { ...empty, text, gaps };
  },
  cells: ({ text, gaps }) => ({
    options: [],
    key: segmentsOf(text, gaps)
      .map((segment) => ('gap' in segment ? `[${insideOf(segment.gap)}]` : segment.text))
      .join(''),
  }),
};

function gapFrom(inside: string, number: number, newId: () => string): Gap {
  const gap = { id: newId(), number, accepted: [], options: [], key: null };
  const picks = inside.split('/').map((text) => text.trim());
  if (picks.length > 1 || tick.test(inside.trim())) {
    const options = picks.map((pick) => ({ id: newId(), text: pick.replace(tick, ''), comment: '' }));
    const right = options[picks.findIndex((pick) => tick.test(pick))];
    return { ...gap, filledBy: 'picking', options, key: right?.id ?? null };
  }
  const accepted = inside.split('|').map((part) => {
    const [text, share] = withoutShare(part.trim());
    return { id: newId(), text, share, comment: '' };
  });
  return { ...gap, filledBy: 'typing', accepted };
}

function insideOf({ filledBy, accepted, options, key }: Gap): string {
  if (filledBy === 'typing') return accepted.map(({ text, share }) => withShare(text, share)).join(' | ');
  return options.map(({ id, text }) => `${plainText(text)}${id === key ? ' ✓' : ''}`).join(' / ');
}
