import { Radio } from '@mantine/core';
import type { OneChoice, StudentOneChoice } from '@/core/kinds/oneChoice/schema';
import type { PickedResponse } from '@/core/kinds/options';
import { PrintedOptions } from '../printed';
import type { EditProps, KindView } from '../KindView';
import { OptionPicker, PickedOptions } from '../options/OptionList';
import { OptionRows } from '../options/OptionRows';

function Edit({ question, keep }: EditProps<OneChoice>) {
  return (
    <OptionRows
      options={question.options}
      keep={(options, said, field) => {
        const key = options.some((option) => option.id === question.key) ? question.key : null;
        keep({ ...question, options, key }, said, field);
      }}
      shuffle={{
        on: question.shuffle ?? false,
        change: (shuffle) =>
          keep({ ...question, shuffle }, shuffle ? 'Options shuffled' : 'Options as they stand'),
      }}
      keyControl={(option, letter) => (
        <Radio
          name={`key-${question.id}`}
          aria-label={`${letter} is right`}
          checked={question.key === option.id}
          onChange={() => keep({ ...question, key: option.id }, `Key set to ${letter}`)}
        />
      )}
    />
  );
}

export const oneChoiceView: KindView<OneChoice, StudentOneChoice, PickedResponse> = {
  Edit,
  Sit: (props) => <OptionPicker {...props} several={false} />,
  Show: PickedOptions,
  Printed: ({ question }) => <PrintedOptions options={question.options} several={false} />,
};
