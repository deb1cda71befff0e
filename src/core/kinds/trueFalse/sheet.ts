import { Unreadable, type SheetKind } from '../sheet/SheetKind';
import { trueFalse } from '.';
import type { TrueFalse } from './schema';
import { truth } from './truth';

export const trueFalseSheet: SheetKind<TrueFalse> = {
  turn: 60,
  suits: ({ options, key }) => options.length === 0 && truth(key) !== null,
  read: (empty, { key }) => {
    const answer = truth(key);
    if (key && answer === null) throw new Unreadable('keyMatchesNothing', key);
    return { ...empty, key: answer };
  },
  cells: (question) => ({ options: [], key: trueFalse.keyText(question) }),
  fromAnswers: {
    turn: 10,
    suits: ({ texts, different }) =>
      texts.length > 0 &&
      different.length === 2 &&
      new Set(different.map(truth)).size === 2 &&
      !different.some((text) => truth(text) === null || /^[01yn]$/i.test(text)),
    read: (empty) => empty,
  },
};
