import { lazy, Suspense, type ComponentType } from 'react';
import type { SitProps } from './KindView';

/** A field that is fetched for the papers that ask for it: what most papers do without is not sent to every phone. */
export function fetchedSit<S, R>(fetch: () => Promise<{ Sit: ComponentType<SitProps<S, R>> }>) {
  const Fetched = lazy(async () => ({ default: (await fetch()).Sit }));
  return {
    fetch,
    Sit: (props: SitProps<S, R>) => (
      <Suspense fallback={<p role="status">One moment…</p>}>
        <Fetched {...props} />
      </Suspense>
    ),
  };
}
