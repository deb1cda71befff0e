import { Radio } from '@mantine/core';
import type { OneChoice } from '@/core/kinds/oneChoice/schema';
import type { EditProps } from '../KindView';
import { OptionRows } from '../options/OptionRows';

export function Edit({ question, keep }: EditProps<OneChoice>) {
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
          keep({ ...question, shuffle }, shuffle ? 'Options shuffled' : 'Options in written order'),
      }}
      keyControl={(option, letter) => (
        <Radio
          name={`key-${question.id}`}
          aria-label={`${letter} is right`}
          checked={question.key === option.id}
          onChange={() => keep({ ...question, key: option.id }, `Key changed to ${letter}`)}
        />
      )}
    />
  );
}
