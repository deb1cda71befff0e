import type { ComponentType } from 'react';
import type { KindName, StudentQuestion, StudentQuestionOf } from '@/core/kinds';
import type { PrintedProps } from './KindView';
import { prints } from './registry/prints';

// Apart from the other views, so that students never load them.
const printsOf: { [K in KindName]: ComponentType<PrintedProps<StudentQuestionOf<K>>> } = prints;

/** How a question of this kind stands on paper. */
export function printOf(question: { kind: KindName }): ComponentType<PrintedProps<StudentQuestion>> {
  // As in core: a question only ever meets the print of the kind it names.
  return printsOf[question.kind] as unknown as ComponentType<PrintedProps<StudentQuestion>>;
}
