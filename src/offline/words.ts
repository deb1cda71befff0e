/** What pages tell the service worker. */
export type WorkerWord = 'begin' | 'keep the desk';

/** What it tells them. */
export type PageWord = { is: 'keeping'; done: number; of: number } | { is: 'kept' } | { is: 'notKept' };

/** Where it notes that every page and file of the desk is here. */
export const deskKept = '/kept-desk';
