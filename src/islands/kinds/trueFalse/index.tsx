import { trueFalseOptions } from '@/core/kinds/trueFalse/options';
import type { StudentTrueFalse } from '@/core/kinds/trueFalse/schema';
import type { PickedResponse } from '@/core/kinds/options';
import type { KindView } from '../KindView';
import { OptionPicker, PickedOptions } from '../options/OptionList';

const options = [...trueFalseOptions];

export const trueFalseView: KindView<StudentTrueFalse, PickedResponse> = {
  Sit: (props) => <OptionPicker {...props} question={{ id: props.question.id, options }} several={false} />,
  Show: ({ question, response }) => (
    <PickedOptions question={{ id: question.id, options }} response={response} />
  ),
};
