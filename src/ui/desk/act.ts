import { useSyncExternalStore } from 'react';
import { Stopped } from '@/workers/stoppable';

/** What the kept line has to say beside the log: a fault, or that something was taken back. */
export interface Word {
  text: string;
  fault: boolean;
  /** Something on the page is not stored. */
  unsaved: boolean;
}

let word: Word | null = null;
const listeners = new Set<() => void>();

export function say(text: string, fault = false, unsaved = false): void {
  word = text ? { text, fault, unsaved } : null;
  for (const listener of listeners) listener();
}

export function useWord(): Word | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => word,
    () => null,
  );
}

const underWay = new Set<Promise<unknown>>();

/** Null when every command has been kept; otherwise resolves once they have. */
export function untilKept(): Promise<unknown> | null {
  return underWay.size === 0 ? null : Promise.allSettled([...underWay]);
}

/** Runs a command from a control; a fault goes to the kept line, so that nothing fails in silence. */
export async function act<T>(work: Promise<T>): Promise<T | null> {
  // What was said before makes room at once: clearing it later could wipe away a newer word.
  say('');
  underWay.add(work);
  try {
    return await work;
  } catch (error) {
    if (error instanceof Stopped) say('Stopped. Nothing was changed.');
    else say(unsavedWords(error), true, isFull(error));
    return null;
  } finally {
    underWay.delete(work);
  }
}

/** Why something was not stored, and what to do. */
export function unsavedWords(error: unknown): string {
  if (isFull(error))
    return 'Not saved: there is no room left in this browser. What you wrote stays on this page and is saved as soon as there is room. Save a backup, then delete what you no longer need, or free space on the disk.';
  return `Not kept: ${error instanceof Error ? error.message : String(error)}`;
}

/** Whether storing failed for want of room; Dexie wraps what the browser says. */
function isFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const inner = (error as { inner?: unknown }).inner;
  return error.name === 'QuotaExceededError' || /QuotaExceeded/.test(error.message) || isFull(inner);
}
