import { useEffect, useRef, type RefObject } from 'react';

/**
 * Once this browser is paired, or is not any more, what was used for it is gone: the focus, where it was there, goes to what
 * stands instead.
 */
export function useFocusOverPairing(
  paired: boolean | undefined,
  target: RefObject<HTMLElement | null>,
): void {
  const before = useRef(paired);
  useEffect(() => {
    if (before.current !== undefined && before.current !== paired && document.activeElement === document.body)
      target.current?.focus();
    before.current = paired;
  }, [paired, target]);
}
