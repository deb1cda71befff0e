import type { OpenText } from '@/core/kinds/openText/schema';
import type { EditProps } from '../KindView';
import { SchemeEdit } from '../text/SchemeEdit';

export function Edit({ question, keep }: EditProps<OpenText>) {
  return (
    <SchemeEdit
      value={question}
      worth={question.points}
      change={({ modelAnswer, scheme }, said, field) =>
        keep({ ...question, modelAnswer, scheme }, said, field && `${field}-${question.id}`)
      }
    />
  );
}
