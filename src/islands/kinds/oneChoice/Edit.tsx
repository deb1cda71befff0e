import { Checkbox, Radio } from '@mantine/core';
import type { OneChoice } from '@/core/kinds/oneChoice/schema';
import type { EditProps } from '../KindView';
import { OptionRows } from '../options/OptionRows';

export function Edit({ question, keep }: EditProps<OneChoice>) {
  const { also = [] } = question;
  const withAlso = (next: NonNullable<OneChoice['also']>): OneChoice => {
    const { also: _, ...rest } = question;
    return next.length > 0 ? { ...rest, also: next } : rest;
  };
  return (
    <OptionRows
      options={question.options}
      keep={(options, said, field) => {
        const there = (id: string | null) => options.some((option) => option.id === id);
        const key = there(question.key) ? question.key : null;
        keep({ ...withAlso(also.filter(({ id }) => there(id))), options, key }, said, field);
      }}
      shuffle={{
        on: question.shuffle ?? false,
        change: (shuffle) =>
          keep({ ...question, shuffle }, shuffle ? 'Options shuffled' : 'Options in written order'),
      }}
      keyControl={(option, letter) => {
        const taken = also.find(({ id }) => id === option.id);
        return (
          <>
            <Radio
              name={`key-${question.id}`}
              aria-label={`${letter} is right`}
              checked={question.key === option.id}
              onChange={() =>
                keep(
                  { ...withAlso(also.filter(({ id }) => id !== option.id)), key: option.id },
                  `Key changed to ${letter}`,
                )
              }
            />
            {taken && (
              <Checkbox
                size="xs"
                label={taken.share < 1 ? `taken for ${Math.round(taken.share * 100)}%` : 'taken too'}
                aria-label={`${letter} is taken too`}
                checked
                onChange={() =>
                  keep(withAlso(also.filter(({ id }) => id !== option.id)), `${letter} no longer taken`)
                }
              />
            )}
          </>
        );
      }}
    />
  );
}
