import type { StudentOneChoice } from '@/core/kinds/oneChoice/schema';
import type { PickedResponse } from '@/core/kinds/options';
import type { KindView } from '../KindView';
import { OptionPicker, PickedOptions } from '../options/OptionList';

export const oneChoiceView: KindView<StudentOneChoice, PickedResponse> = {
  Sit: (props) => <OptionPicker {...props} several={false} />,
  Show: PickedOptions,
};
