import { useEffect } from 'react';
import { untilSaved } from './act';

/**
 * Leaving by a link waits until what was done last is kept: a page that is gone would take its unfinished writing with
 * it. Left otherwise while something is being written, the browser asks first.
 */
export function useKeptFirst(): void {
  useEffect(() => {
    const clicked = (event: MouseEvent) => {
      const kept = untilSaved();
      if (!kept || event.defaultPrevented || event.button !== 0) return;
      if (event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
      const link = event.target instanceof Element ? event.target.closest('a') : null;
      if (!link || link.origin !== window.location.origin || link.target || link.download) return;
      event.preventDefault();
      void kept.then(() => window.location.assign(link.href));
    };
    // By the address, a key or the tab being closed: the browser asks, and meanwhile it is written.
    const left = (event: BeforeUnloadEvent) => {
      if (untilSaved()) event.preventDefault();
    };
    document.addEventListener('click', clicked);
    window.addEventListener('beforeunload', left);
    return () => {
      document.removeEventListener('click', clicked);
      window.removeEventListener('beforeunload', left);
    };
  }, []);
}
