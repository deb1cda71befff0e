import type { OpenText, StudentOpenText } from '@/core/kinds/openText/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import { PrintedLines } from '../printed';
import type { EditProps, KindView } from '../KindView';
import { SchemeEdit } from '../text/SchemeEdit';
import { TextAnswer, WrittenAnswer } from '../text/TextAnswer';

function Edit({ question, keep }: EditProps<OpenText>) {
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

export const openTextView: KindView<OpenText, StudentOpenText, TextResponse> = {
  Edit,
  Sit: (props) => <TextAnswer {...props} rows={5} />,
  Show: WrittenAnswer,
  Printed: ({ question, room }) => (
    <PrintedLines count={room ? Math.min(12, 3 + Math.ceil(question.points)) : 0} />
  ),
};
