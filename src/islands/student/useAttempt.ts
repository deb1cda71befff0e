import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Carrier } from '@/carriers/Carrier';
import type { HeldAttempt } from '@/store/sitTables';
import { AttemptSession, type SessionView } from './attemptSession';
import { useNoticed } from './useNoticed';

/**
 * An attempt under way, for as long as the component is there.
 *
 * @param opened whether the other side knows that it goes on here; where nobody answered it is told as soon as it does
 */
export function useAttempt(carrier: Carrier, initial: HeldAttempt, opened = true) {
  const noticed = useNoticed();
  const [session] = useState(() => new AttemptSession(carrier, initial, noticed, opened));
  const view: SessionView = useSyncExternalStore(session.subscribe, session.getView);
  useEffect(session.begin, [session]);
  const { held, status } = view;
  /** When time is up, ms since 1970 by that clock: as was said last, before this page was opened, too. */
  const deadline = status ? status.deadline : (held.clock?.deadline ?? null);
  return { ...view, deadline, session, lookingAt: noticed.lookingAt };
}
