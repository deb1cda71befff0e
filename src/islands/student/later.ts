import { lazy } from 'react';

/** What the page fetches once somebody has come in: the form for the code stands without it. */

export const fetchInside = () => import('./Inside');
export const Inside = lazy(async () => ({ default: (await fetchInside()).Inside }));
export const OpenFile = lazy(async () => ({ default: (await import('./OpenFile')).OpenFile }));

/**
 * Has this page kept in the browser, to be opened again without a network.
 *
 * @param idle nobody has come in: a newer version that waits may begin
 */
export async function keptHere(idle: boolean): Promise<void> {
  const { beginNewVersion, keepPage } = await import('@/offline/kept');
  await keepPage();
  if (idle) await beginNewVersion();
}
