import { useEffect } from 'react';
import { untilSaved } from './act';

/**
 * Leaving by a link waits until what was done last is kept: a page that is gone would take its unfinished writing with
 * it.
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
    document.addEventListener('click', clicked);
    return () => document.removeEventListener('click', clicked);
  }, []);
}
