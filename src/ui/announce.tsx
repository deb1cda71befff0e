import { useSyncExternalStore } from 'react';

/** What a screen reader says of a change that is seen but has not the focus (WCAG 2.2, 4.1.3). */

let words = '';
const listeners = new Set<() => void>();

export function announce(text: string): void {
  // The same words again are said again: a live region tells only what changes.
  words = words === text ? `${text}\u00a0` : text;
  for (const listener of listeners) listener();
}

export function Announcements() {
  const said = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => words,
    () => '',
  );
  return (
    <div role="status" aria-label="Announcements" className="visuallyHidden">
      {said}
    </div>
  );
}
