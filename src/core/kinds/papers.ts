import type { KindName, ResponseOf, StudentQuestion, StudentQuestionOf, Response } from '.';
import type { PaperKind } from './paper/PaperKind';
import { papers } from './registry/papers';

const forms: { [K in KindName]: PaperKind<StudentQuestionOf<K>, ResponseOf<K>> } = papers;

/** How a kind stands on paper. */
export function paperOf(question: { kind: KindName }): PaperKind<StudentQuestion, Response> {
  // As in the other registries: a question only ever meets the form of the kind it names.
  return forms[question.kind] as unknown as PaperKind<StudentQuestion, Response>;
}
