import { useHotkeys } from '@mantine/hooks';
import { spotlight } from '@mantine/spotlight';
import { useCallback, useEffect, useRef, useState, type ComponentType } from 'react';
import { say } from './act';

/** What is on the page comes first. */
const fetchAfterMs = 1_000;
/** Whoever asks for search does nothing else so long; after that it is not to come by itself. */
const waitMs = 3_000;

const fromServer = (): Promise<{ Search: ComponentType }> => import('./Search');

/**
 * Search over the whole desk. It is fetched a moment after the page, or as soon as its key or button asks for it.
 *
 * @param fetchIt the same as long as it is drawn
 */
export function useSearch(fetchIt = fromServer): { Search: ComponentType | null; openSearch: () => void } {
  const [Search, setSearch] = useState<ComponentType | null>(null);
  const asked = useRef(false);
  const fetch = useCallback(async () => {
    const fetched = await fetchIt();
    setSearch(() => fetched.Search);
  }, [fetchIt]);
  useEffect(() => {
    // Where it can't be fetched, that is said once it is asked for.
    const timer = setTimeout(() => void fetch().catch(() => undefined), fetchAfterMs);
    return () => clearTimeout(timer);
  }, [fetch]);
  const openSearch = useCallback(() => {
    if (Search) spotlight.open();
    else {
      asked.current = true;
      const letGo = keysHeldBack();
      void inTime(fetch())
        .catch(() => {
          asked.current = false;
          say('Search couldn’t be loaded. Try again.', true);
        })
        .finally(letGo);
    }
  }, [Search, fetch]);
  useHotkeys([['mod+K', openSearch]]);
  // Once it is drawn, so that the focus goes back to where it was when it is closed.
  useEffect(() => {
    if (Search && asked.current) spotlight.open();
  }, [Search]);
  return { Search, openSearch };
}

/** Fails where it takes too long. */
const inTime = (fetched: Promise<void>) =>
  Promise.race([
    fetched,
    new Promise<void>((_, refuse) => setTimeout(() => refuse(new Error('Too slow')), waitMs)),
  ]);

/** What is typed after search was asked for is meant for it: it does not reach the page, where a letter may be a key. @returns ends it */
function keysHeldBack(): () => void {
  const held = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    event.stopImmediatePropagation();
    event.preventDefault();
  };
  window.addEventListener('keydown', held, true);
  return () => window.removeEventListener('keydown', held, true);
}
