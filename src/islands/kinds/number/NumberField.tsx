import { TextInput, type TextInputProps } from '@mantine/core';
import { useState } from 'react';
import { numberFrom } from '@/core/kinds/number/numberFrom';

interface NumberFieldProps extends Omit<TextInputProps, 'value' | 'onChange' | 'label'> {
  label: string;
  value: number | null;
  /** Called with each number that can be read; an empty field gives null. */
  change: (value: number | null) => void;
}

/** Any number, typed the way people write it. What cannot be read is said and never kept. */
export function NumberField({ label, value, change, ...rest }: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? null : numberFrom(typed);
  const bad = typed !== null && typed.trim() !== '' && (read === null || read.unit !== '');
  return (
    <TextInput
      size="sm"
      inputMode="decimal"
      {...rest}
      aria-label={label}
      value={typed ?? (value === null ? '' : String(value))}
      error={bad ? 'not a number' : null}
      onChange={(event) => {
        const text = event.currentTarget.value;
        setTyped(text);
        const number = numberFrom(text);
        if (text.trim() === '') change(null);
        else if (number && number.unit === '') change(number.value);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
