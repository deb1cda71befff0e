import type { PickedResponse } from '@/core/kinds/options';
import type { StudentSeveralChoices } from '@/core/kinds/severalChoices/schema';
import type { KindView } from '../KindView';
import { OptionPicker, PickedOptions } from '../options/OptionList';

export const severalChoicesView: KindView<StudentSeveralChoices, PickedResponse> = {
  Sit: (props) => <OptionPicker {...props} several />,
  Show: PickedOptions,
};
