import { lazy, Suspense, type ComponentType } from 'react';
import type { ShowProps } from './KindView';

/** How answers are shown that few papers have: it comes when the first of them is to be seen. */
export function laterShow<S, R>(
  load: () => Promise<{ default: ComponentType<ShowProps<S, R>> }>,
): ComponentType<ShowProps<S, R>> {
  // What cannot be fetched is said there; the rest of the page stays.
  const Later = lazy(() => load().catch(() => ({ default: Missing })));
  return function Show(props: ShowProps<S, R>) {
    return (
      <Suspense fallback={null}>
        <Later {...props} />
      </Suspense>
    );
  };
}

function Missing() {
  return <p role="alert">This answer couldn’t be loaded to be shown. It is saved; load the page again.</p>;
}
