import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { pairing } from '@/store/pairing';
import { watchConnection, type ConnectionState } from '@/workers/connection';

/** How the connection to the classroom server is; `paired` is undefined while that is looked up. */
export function useConnection(): { paired: boolean | undefined; state: ConnectionState | null } {
  const paired = useLiveQuery(async () => (await pairing()) !== undefined);
  const [state, setState] = useState<ConnectionState | null>(null);
  useEffect(() => watchConnection(setState), []);
  return { paired, state };
}
