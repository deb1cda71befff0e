import type { StudentOpenText } from '@/core/kinds/openText/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import type { KindView } from '../KindView';
import { TextAnswer, WrittenAnswer } from '../text/TextAnswer';

export const openTextView: KindView<StudentOpenText, TextResponse> = {
  Sit: (props) => <TextAnswer {...props} rows={5} />,
  Show: WrittenAnswer,
  written: true,
};
