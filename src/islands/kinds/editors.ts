import type { ComponentType } from 'react';
import type { KindName, Question, QuestionOf } from '@/core/kinds';
import type { EditProps } from './KindView';
import { editors } from './registry/editors';

// Apart from the other views, so that only Write loads them.
const editorsOf: { [K in KindName]: ComponentType<EditProps<QuestionOf<K>>> } = editors;

/** How a question of this kind is written. */
export function editorOf(question: { kind: KindName }): ComponentType<EditProps<Question>> {
  // As in core: a question only ever meets the editor of the kind it names.
  return editorsOf[question.kind] as unknown as ComponentType<EditProps<Question>>;
}
