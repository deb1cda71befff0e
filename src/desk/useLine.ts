import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { lineKept } from '@/sync/boxSync';
import { watchLine, type LineState } from '@/workers/line';

/** How the line to the classroom server is; `paired` is undefined while that is looked up. */
export function useLine(): { paired: boolean | undefined; state: LineState | null } {
  const paired = useLiveQuery(async () => (await lineKept()) !== undefined);
  const [state, setState] = useState<LineState | null>(null);
  useEffect(() => watchLine(setState), []);
  return { paired, state };
}
