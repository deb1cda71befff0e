import { Unreadable, type SheetKind } from '../sheet/SheetKind';
import { trueFalse } from '.';
import type { TrueFalse } from './schema';

export const trueFalseSheet: SheetKind<TrueFalse> = {
  turn: 60,
  suits: ({ options, key }) => options.length === 0 && truth(key) !== null,
  read: (empty, { key }) => {
    const answer = truth(key);
    if (key && answer === null) throw new Unreadable('keyMatchesNothing', key);
    return { ...empty, key: answer };
  },
  cells: (question) => ({ options: [], key: trueFalse.keyText(question) }),
};

function truth(text: string): boolean | null {
  if (/^(true|t|yes)$/i.test(text)) return true;
  return /^(false|f|no)$/i.test(text) ? false : null;
}
