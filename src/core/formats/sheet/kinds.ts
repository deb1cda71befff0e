import { kindNamed, kindNames, type KindName, type Question, type QuestionOf } from '../../kinds';
import { sheets } from '../../kinds/registry/sheets';
import type { AnswersOfColumn, SheetKind } from '../../kinds/sheet/SheetKind';

const forms: { [K in KindName]: SheetKind<QuestionOf<K>> } = sheets;

/** The kinds in the order in which a row that names none is held against them. */
export const sheetKinds = [...kindNames].sort((a, b) => forms[a].turn - forms[b].turn);

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

/** The kinds that a question can be made of from answers to it, in the order in which they are held against a column. */
export const kindsFromAnswers: readonly KindName[] = kindNames
  .filter((name) => forms[name].fromAnswers)
  .sort((a, b) => (forms[a].fromAnswers?.turn ?? 0) - (forms[b].fromAnswers?.turn ?? 0));

/** The kind of question that a column of answers looks like. */
export const kindLike = (answers: AnswersOfColumn): KindName =>
  kindsFromAnswers.find((name) => sheetOf(name).fromAnswers?.suits(answers)) ?? 'shortText';
