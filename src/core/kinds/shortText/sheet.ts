import { keyParts, withoutShare, withShare, type SheetKind } from '../sheet/SheetKind';
import type { ShortText } from './schema';

export const shortTextSheet: SheetKind<ShortText> = {
  turn: 900,
  suits: () => true,
  read: (empty, { key }, newId) => {
    const accepted = keyParts(key).map((part) => {
      const [text, share] = withoutShare(part);
      return { id: newId(), text, share, comment: '' };
    });
    return accepted.length > 0 ? { ...empty, accepted } : empty;
  },
  cells: ({ accepted }) => ({
    options: [],
    key: accepted.map(({ text, share }) => withShare(text, share)).join('; '),
  }),
  fromAnswers: { turn: 90, suits: () => true, read: (empty) => empty },
};
