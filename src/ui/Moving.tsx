import { useLayoutEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import type { ReactNode } from 'react';

/**
 * What is drawn once and stands where it is wanted, so that going from place to place does not draw it anew. It keeps its state on
 * the way: what belongs to one place begins anew by itself (`useAnew`).
 */
export function useMoving(): HTMLElement {
  const [host] = useState(() => {
    const made = document.createElement('div');
    made.style.display = 'contents';
    return made;
  });
  return host;
}

/** What stands in `host`, wherever that is. */
export const Moving = ({ host, children }: { host: HTMLElement; children: ReactNode }) =>
  createPortal(children, host);

/** The place where it stands now. */
export function PlaceOf({ host }: { host: HTMLElement }) {
  const place = useRef<HTMLDivElement>(null);
  useLayoutEffect(() => {
    if (host.parentNode !== place.current) place.current?.append(host);
  });
  return <div ref={place} style={{ display: 'contents' }} />;
}
