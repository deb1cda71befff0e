import { kindNamed, type KindName, type Question } from '../../kinds';
import { categoriesSheet } from '../../kinds/categories/sheet';
import { fileSheet } from '../../kinds/file/sheet';
import { gapsSheet } from '../../kinds/gaps/sheet';
import { matchingSheet } from '../../kinds/matching/sheet';
import { numberSheet } from '../../kinds/number/sheet';
import { oneChoiceSheet } from '../../kinds/oneChoice/sheet';
import { openTextSheet } from '../../kinds/openText/sheet';
import { orderingSheet } from '../../kinds/ordering/sheet';
import { severalChoicesSheet } from '../../kinds/severalChoices/sheet';
import { shortTextSheet } from '../../kinds/shortText/sheet';
import { trueFalseSheet } from '../../kinds/trueFalse/sheet';
import { workingSheet } from '../../kinds/working/sheet';
import type { SheetKind } from '../../kinds/sheet/SheetKind';

/** The registry: how each kind stands in a row, in the order in which a row is held against them. */
const forms = {
  matching: matchingSheet,
  categories: categoriesSheet,
  severalChoices: severalChoicesSheet,
  oneChoice: oneChoiceSheet,
  openText: openTextSheet,
  trueFalse: trueFalseSheet,
  number: numberSheet,
  gaps: gapsSheet,
  ordering: orderingSheet,
  working: workingSheet,
  file: fileSheet,
  shortText: shortTextSheet,
} satisfies Record<KindName, unknown>;

export const sheetKinds = Object.keys(forms) as (keyof typeof forms)[]; // the keys of a literal object are its names

/** How a kind stands in a row. */
export function sheetOf(kind: KindName): SheetKind<Question> {
  // As in the other registries: a question only ever meets the form of the kind it names.
  return forms[kind] as unknown as SheetKind<Question>;
}

/** The kind that a teacher calls so; undefined for none. */
export function sheetKindCalled(text: string): KindName | undefined {
  const plain = (name: string) => name.toLowerCase().replace(/[^a-z]/g, '');
  return sheetKinds.find((name) => [name, kindNamed(name).label].map(plain).includes(plain(text)));
}
