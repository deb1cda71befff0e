import { TextInput, type TextInputProps } from '@mantine/core';
import { useRef, useState } from 'react';
import { useAnew } from './useAnew';
import { points as shown, pointsFrom } from '@/words/format';

interface PointsFieldProps extends Omit<TextInputProps, 'value' | 'onChange' | 'label'> {
  label: string;
  value: number | null;
  /** What the points belong to: what was typed for one thing is not shown for the next. */
  about?: string;
  min?: number;
  max?: number;
  /** What the number must be a multiple of, unless it is `max`. */
  step?: number;
  /** Called with each number that can be taken; an empty field gives null. */
  onPoints: (points: number | null) => void;
}

/**
 * A number of points, comma or point alike. What cannot be taken is said and never kept: what was there before stays, also
 * where the beginning of it could have been taken.
 */
export function PointsField({
  value,
  about,
  min = 0,
  max = 1000,
  step,
  onPoints,
  label,
  ...rest
}: PointsFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  useAnew(about, () => {
    setTyped(null);
    setRefused(null);
  });
  const before = useRef(value);
  const committed = useRef(false);
  const faultOf = (text: string): string | null => {
    const read = pointsFrom(text);
    if (text.trim() === '') return null;
    if (read === null || read < min || read > max) return `${shown(min)} to ${shown(max)}`;
    return step !== undefined && read !== max && !Number.isInteger(read / step)
      ? `steps of ${shown(step)}`
      : null;
  };
  const fault = typed === null ? null : faultOf(typed);
  const change = (text: string) => {
    setTyped(text);
    setRefused(null);
    const fits = faultOf(text) === null;
    if (fits) onPoints(text.trim() === '' ? null : pointsFrom(text));
    else if (committed.current) onPoints(before.current);
    committed.current = fits;
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
      onFocus={(event) => {
        before.current = value;
        committed.current = false;
        setRefused(null);
        event.currentTarget.select();
      }}
      onBlur={() => {
        if (typed !== null && fault !== null) setRefused(`${typed}: ${fault}`);
        setTyped(null);
      }}
      error={fault ?? refused}
    />
  );
}
