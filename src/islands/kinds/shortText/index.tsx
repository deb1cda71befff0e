import type { StudentShortText } from '@/core/kinds/shortText/schema';
import type { TextResponse } from '@/core/kinds/textResponse';
import type { KindView } from '../KindView';
import { TextAnswer, WrittenAnswer } from '../text/TextAnswer';

export const shortTextView: KindView<StudentShortText, TextResponse> = {
  Sit: (props) => <TextAnswer {...props} rows={1} />,
  Show: WrittenAnswer,
};
