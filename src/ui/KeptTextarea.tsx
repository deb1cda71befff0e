import type { TextareaProps } from '@mantine/core';
import { GrowingTextarea } from './GrowingTextarea';
import { onLeaving } from './leaving';
import { forwardRef, useCallback, useEffect, useRef, useState, type RefObject } from 'react';

interface KeptTextareaProps extends Omit<TextareaProps, 'value' | 'onChange'> {
  value: string;
  /** Called a moment after the last key, and when the field is left. */
  onKeep: (value: string) => void;
  /** Told each text as it is typed. */
  onTyping?: (typed: string) => void;
  /** Gets what puts another text in the field, as if it were typed, and keeps it at once. */
  replacing?: RefObject<((text: string) => void) | null>;
}

const restMs = 400;

/** A text field that keeps what is typed by itself, and follows the kept value when nobody types. */
export const KeptTextarea = forwardRef<HTMLTextAreaElement, KeptTextareaProps>(function KeptTextarea(
  { value, onKeep, onTyping, replacing, onBlur, ...rest },
  ref,
) {
  const [typed, setTyped] = useState<string | null>(null);
  const [left, setLeft] = useState(false);
  // Once it is left, what is kept shows; what could not be kept stays.
  const [shown, setShown] = useState(value);
  if (shown !== value) {
    setShown(value);
    if (left) setTyped(null);
  }
  const latest = useRef({ typed, onKeep });
  useEffect(() => {
    latest.current = { typed, onKeep };
  });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const keep = useCallback(() => {
    if (timer.current) clearTimeout(timer.current);
    timer.current = null;
    const { typed: last, onKeep: keeper } = latest.current;
    if (last !== null) keeper(last);
  }, []);
  useEffect(() => {
    if (!replacing) return;
    replacing.current = (text) => {
      setLeft(false);
      setTyped(text);
      latest.current.onKeep(text);
    };
    return () => {
      replacing.current = null;
    };
  }, [replacing]);
  // The first key starts the clock: typing on does not put it off.
  useEffect(() => {
    if (typed !== null) timer.current ??= setTimeout(keep, restMs);
  }, [typed, keep]);
  useEffect(() => onLeaving(keep), [keep]);
  useEffect(
    () => () => {
      if (latest.current.typed !== null) latest.current.onKeep(latest.current.typed);
    },
    [],
  );
  return (
    <GrowingTextarea
      {...rest}
      ref={ref}
      value={typed ?? value}
      onChange={(event) => {
        setLeft(false);
        setTyped(event.currentTarget.value);
        onTyping?.(event.currentTarget.value);
      }}
      onBlur={(event) => {
        if (typed !== null && typed !== value) onKeep(typed);
        if (typed === value) setTyped(null);
        setLeft(true);
        onBlur?.(event);
      }}
    />
  );
});
