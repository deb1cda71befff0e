import { useEffect } from 'react';
import type { LaterPart } from './later';

/** What is on the page comes first. */
const afterMs = 2_000;

/**
 * Fetches parts that come later once the page has stood a while: by the time they are to be seen the server may be gone.
 *
 * @param parts the same list at each drawing
 */
export function useSoonHere(parts: readonly Pick<LaterPart<never>, 'fetch'>[]): void {
  useEffect(() => {
    const timer = setTimeout(() => {
      for (const { fetch } of parts) void fetch().catch(() => undefined); // asked again when it is to be seen
    }, afterMs);
    return () => clearTimeout(timer);
  }, [parts]);
}
