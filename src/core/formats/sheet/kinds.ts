import { kindNamed, type KindName, type Question } from '../../kinds';
import { numberSheet } from '../../kinds/number/sheet';
import { oneChoiceSheet } from '../../kinds/oneChoice/sheet';
import { openTextSheet } from '../../kinds/openText/sheet';
import { severalChoicesSheet } from '../../kinds/severalChoices/sheet';
import { shortTextSheet } from '../../kinds/shortText/sheet';
import { trueFalseSheet } from '../../kinds/trueFalse/sheet';
import type { SheetKind } from './SheetKind';

/** The registry: the kinds that a row can hold, in the order in which a row is held against them. */
const forms = {
  severalChoices: severalChoicesSheet,
  oneChoice: oneChoiceSheet,
  openText: openTextSheet,
  trueFalse: trueFalseSheet,
  number: numberSheet,
  shortText: shortTextSheet,
} satisfies Partial<Record<KindName, unknown>>;

export const sheetKinds = Object.keys(forms) as (keyof typeof forms)[]; // the keys of a literal object are its names

/** How a kind stands in a row; undefined for kinds that no row can hold. */
export function sheetOf(kind: KindName): SheetKind<Question> | undefined {
  // As in the other registries: a question only ever meets the form of the kind it names.
  return (forms as Partial<Record<KindName, unknown>>)[kind] as SheetKind<Question> | undefined;
}

/** The kind that a teacher calls so; undefined when no row can hold it. */
export function sheetKindCalled(text: string): KindName | undefined {
  const plain = (name: string) => name.toLowerCase().replace(/[^a-z]/g, '');
  return sheetKinds.find((name) => [name, kindNamed(name).label].map(plain).includes(plain(text)));
}
