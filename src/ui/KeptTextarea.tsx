import type { TextareaProps } from '@mantine/core';
import { mostText } from '@/core/basics/mostText';
import { GrowingTextarea } from './GrowingTextarea';
import { useTyped } from './useTyped';
import { onLeaving } from './leaving';
import { forwardRef, useCallback, useEffect, useRef, type RefObject } from 'react';

interface KeptTextareaProps extends Omit<TextareaProps, 'value' | 'onChange'> {
  value: string;
  /** What the text belongs to: what was typed for one thing is kept for it, and not shown for the next. */
  about?: string;
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
  { value, about, onKeep, onTyping, replacing, onBlur, ...rest },
  ref,
) {
  const { typed, type, forget, leave } = useTyped(value, about);
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
      type(text);
      latest.current.onKeep(text);
    };
    return () => {
      replacing.current = null;
    };
  }, [replacing, type]);
  // The first key starts the clock: typing on does not put it off.
  useEffect(() => {
    if (typed !== null) timer.current ??= setTimeout(keep, restMs);
  }, [typed, keep]);
  useEffect(() => onLeaving(keep), [keep]);
  // What was typed goes to what it was typed for: effects end before `latest` is of the next.
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
      timer.current = null;
      if (latest.current.typed !== null) latest.current.onKeep(latest.current.typed);
    },
    [about],
  );
  return (
    <GrowingTextarea
      maxLength={mostText}
      {...rest}
      ref={ref}
      value={typed ?? value}
      onChange={(event) => {
        // At once: what it is for may be another thing by the next time that it is drawn.
        latest.current = { ...latest.current, typed: event.currentTarget.value };
        type(event.currentTarget.value);
        onTyping?.(event.currentTarget.value);
      }}
      onBlur={(event) => {
        if (typed !== null && typed !== value) onKeep(typed);
        if (typed === value) forget();
        leave();
        onBlur?.(event);
      }}
    />
  );
});
