import type { StudentOpenText } from '@/core/kinds/openText/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import { PrintedLines } from '../printed';
import type { KindView } from '../KindView';
import { TextAnswer, WrittenAnswer } from '../text/TextAnswer';

export const openTextView: KindView<StudentOpenText, TextResponse> = {
  Sit: (props) => <TextAnswer {...props} rows={5} />,
  Show: WrittenAnswer,
  written: true,
  Printed: ({ question, room }) => (
    <PrintedLines count={room ? Math.min(12, 3 + Math.ceil(question.points)) : 0} />
  ),
};
