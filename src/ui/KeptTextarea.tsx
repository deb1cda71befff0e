import { Textarea, type TextareaProps } from '@mantine/core';
import { forwardRef, useEffect, useRef, useState } from 'react';

interface KeptTextareaProps extends Omit<TextareaProps, 'value' | 'onChange'> {
  value: string;
  /** Called a moment after the last key, and when the field is left. */
  onKeep: (value: string) => void;
}

const restMs = 400;

/** A text field that keeps what is typed by itself, and follows the kept value when nobody types. */
export const KeptTextarea = forwardRef<HTMLTextAreaElement, KeptTextareaProps>(function KeptTextarea(
  { value, onKeep, onBlur, ...rest },
  ref,
) {
  const [typed, setTyped] = useState<string | null>(null);
  const latest = useRef({ typed, onKeep });
  useEffect(() => {
    latest.current = { typed, onKeep };
  });
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(() => onKeep(typed), restMs);
    return () => clearTimeout(timer);
    // The keeper may be a new function at every draw; only typing starts the clock.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [typed]);
  useEffect(
    () => () => {
      if (latest.current.typed !== null) latest.current.onKeep(latest.current.typed);
    },
    [],
  );
  return (
    <Textarea
      autosize
      minRows={1}
      {...rest}
      ref={ref}
      value={typed ?? value}
      onChange={(event) => setTyped(event.currentTarget.value)}
      onBlur={(event) => {
        if (typed !== null && typed !== value) onKeep(typed);
        setTyped(null);
        onBlur?.(event);
      }}
    />
  );
});
