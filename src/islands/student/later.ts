import { lazy } from 'react';

/** What the page fetches once somebody has come in: the form for the code stands without it. */

export const fetchInside = () => import('./Inside');
export const Inside = lazy(async () => ({ default: (await fetchInside()).Inside }));
export const OpenFile = lazy(async () => ({ default: (await import('./OpenFile')).OpenFile }));
