import { lazy, Suspense, type ComponentType } from 'react';

/**
 * A part of a page that few need, or not at once: it is fetched when it is first to be seen. What can’t be fetched is said in its
 * place, and the rest of the page stays.
 */
export function later<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  lacking = 'This part of the page couldn’t be loaded. Load the page again.',
): ComponentType<Props> {
  const Lacking = () => <p role="alert">{lacking}</p>;
  const Part = lazy<ComponentType<Props>>(async () => ({ default: await load().catch(() => Lacking) }));
  return function Later(props: Props) {
    return (
      <Suspense fallback={null}>
        <Part {...props} />
      </Suspense>
    );
  };
}
