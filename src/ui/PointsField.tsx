import { TextInput, type TextInputProps } from '@mantine/core';
import { useState } from 'react';
import { points as shown, pointsFrom } from './format';

interface PointsFieldProps extends Omit<TextInputProps, 'value' | 'onChange' | 'label'> {
  label: string;
  value: number | null;
  min?: number;
  max?: number;
  /** Called with each number that can be taken; an empty field gives null. */
  onPoints: (points: number | null) => void;
}

/** A number of points, comma or point alike. What cannot be taken is said and never kept. */
export function PointsField({ value, min = 0, max = 1000, onPoints, label, ...rest }: PointsFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const number = typed === null ? value : pointsFrom(typed);
  const bad = typed !== null && typed.trim() !== '' && (number === null || number < min || number > max);
  const change = (text: string) => {
    setTyped(text);
    const read = pointsFrom(text);
    if (text.trim() === '') onPoints(null);
    else if (read !== null && read >= min && read <= max) onPoints(read);
  };
  return (
    <TextInput
      size="xs"
      w={76}
      inputMode="decimal"
      {...rest}
      aria-label={label}
      value={typed ?? (value === null ? '' : shown(value))}
      onChange={(event) => change(event.currentTarget.value)}
      onFocus={(event) => event.currentTarget.select()}
      onBlur={() => setTyped(null)}
      error={bad ? `${min} to ${max}` : null}
    />
  );
}
