import { lazy, Suspense, type ComponentType } from 'react';

/** A part of a page that comes later. */
export type LaterPart<Props> = ComponentType<Props> & {
  /** Fetches it before it is to be seen. @throws where it can’t be fetched; it may be asked again */
  fetch: () => Promise<unknown>;
};

/**
 * A part of a page that few need, or not at once: it is fetched when it is first to be seen. What can’t be fetched is said in its
 * place, and the rest of the page stays.
 */
export function later<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  lacking = 'This part of the page couldn’t be loaded. Load the page again.',
): LaterPart<Props> {
  let fetched: ReturnType<typeof load> | null = null;
  const fetch = () =>
    (fetched ??= load().catch((error: unknown) => {
      fetched = null;
      throw error;
    }));
  const Lacking = () => <p role="alert">{lacking}</p>;
  const Part = lazy<ComponentType<Props>>(async () => ({ default: await fetch().catch(() => Lacking) }));
  const Later = (props: Props) => (
    <Suspense fallback={null}>
      <Part {...props} />
    </Suspense>
  );
  return Object.assign(Later, { fetch });
}
