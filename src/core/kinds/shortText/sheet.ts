import { keyParts, withoutShare, type SheetKind } from '../../formats/sheet/SheetKind';
import { shortText } from '.';
import type { ShortText } from './schema';

export const shortTextSheet: SheetKind<ShortText> = {
  suits: () => true,
  read: (empty, { key }, newId) => {
    const accepted = keyParts(key).map((part) => {
      const [text, share] = withoutShare(part);
      return { id: newId(), text, share, comment: '' };
    });
    return accepted.length > 0 ? { ...empty, accepted } : empty;
  },
  holds: ({ accepted }) => accepted.every((each) => each.match !== 'containsAll' && !/[;|]/.test(each.text)),
  keyCell: (question) => shortText.keyText(question) || null,
};
