import { useCallback, useState } from 'react';
import { useAnew } from './useAnew';

/**
 * What is typed in a field, shown over what is kept. Once the field is left, what is kept shows as soon as that changes; what is
 * being typed stays, and so does what could not be kept.
 *
 * @param about what the field is for: where that is another thing, nothing is typed yet
 */
export function useTyped(kept: string, about?: string) {
  const [typed, setTyped] = useState<string | null>(null);
  const [left, setLeft] = useState(false);
  const [shown, setShown] = useState(kept);
  if (shown !== kept) {
    setShown(kept);
    if (left) setTyped(null);
  }
  useAnew(about, () => {
    setLeft(false);
    setTyped(null);
  });
  const type = useCallback((text: string) => {
    setLeft(false);
    setTyped(text);
  }, []);
  const forget = useCallback(() => setTyped(null), []);
  const leave = useCallback(() => setLeft(true), []);
  /** `typed` is null where nothing is typed over what is kept. */
  return { typed, type, forget, leave };
}
