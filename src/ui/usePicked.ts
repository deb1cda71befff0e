import { useCallback, useState } from 'react';

/** Rows that are picked, by id; `pick` stays the same function. */
export function usePicked() {
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const pick = useCallback(
    (ids: readonly string[], on: boolean) =>
      setPicked((before) => {
        const next = new Set(before);
        for (const id of ids)
          if (on) next.add(id);
          else next.delete(id);
        return next;
      }),
    [],
  );
  const pickOnly = useCallback((ids: readonly string[]) => setPicked(new Set(ids)), []);
  return { picked, pick, pickOnly };
}
