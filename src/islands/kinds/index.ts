import type { KindName, Response, ResponseOf, StudentQuestion, StudentQuestionOf } from '@/core/kinds';
import type { KindView } from './KindView';
import { views } from './registry/views';

const viewsOf: { [K in KindName]: KindView<StudentQuestionOf<K>, ResponseOf<K>> } = views;

/** The views of a question's kind. */
export function viewOf(question: { kind: KindName }): KindView<StudentQuestion, Response> {
  // As in core: a question only ever meets the views of the kind it names.
  return viewsOf[question.kind] as unknown as KindView<StudentQuestion, Response>;
}
