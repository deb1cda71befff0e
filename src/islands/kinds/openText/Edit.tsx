import type { OpenText } from '@/core/kinds/openText/schema';
import type { EditProps } from '../KindView';
import { SchemeEdit } from '../text/SchemeEdit';

export function Edit({ question, keep }: EditProps<OpenText>) {
  return (
    <SchemeEdit
      value={question}
      worth={question.points}
      change={(marking, said, field) =>
        keep({ ...question, ...marking }, said, field && `${field}-${question.id}`)
      }
    />
  );
}
