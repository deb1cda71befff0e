import { useCallback, useLayoutEffect, useRef } from 'react';

/**
 * The same function for as long as something is drawn, which does what the one given last does: what takes it is not drawn anew
 * for it. Not to be called while drawing.
 */
export function useSteady<Given extends unknown[], Reply>(
  does: (...given: Given) => Reply,
): (...given: Given) => Reply {
  const latest = useRef(does);
  useLayoutEffect(() => {
    latest.current = does;
  });
  return useCallback((...given: Given) => latest.current(...given), []);
}
