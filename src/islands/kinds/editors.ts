import type { ComponentType } from 'react';
import type { KindName, Question } from '@/core/kinds';
import { Edit as categories } from './categories/Edit';
import { Edit as file } from './file/Edit';
import { Edit as gaps } from './gaps/Edit';
import { Edit as matching } from './matching/Edit';
import { Edit as number } from './number/Edit';
import { Edit as oneChoice } from './oneChoice/Edit';
import { Edit as openText } from './openText/Edit';
import { Edit as ordering } from './ordering/Edit';
import { Edit as severalChoices } from './severalChoices/Edit';
import { Edit as shortText } from './shortText/Edit';
import { Edit as trueFalse } from './trueFalse/Edit';
import { Edit as working } from './working/Edit';
import type { EditProps } from './KindView';

/** The registry of editors: a line a kind, apart from the other views, so that only Write loads them. */
const editors = {
  categories,
  file,
  gaps,
  matching,
  number,
  oneChoice,
  openText,
  ordering,
  severalChoices,
  shortText,
  trueFalse,
  working,
} satisfies Record<KindName, unknown>;

/** How a question of this kind is written. */
export function editorOf(question: { kind: KindName }): ComponentType<EditProps<Question>> {
  // As in core: a question only ever meets the editor of the kind it names.
  return editors[question.kind] as unknown as ComponentType<EditProps<Question>>;
}
