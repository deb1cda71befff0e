import { useSyncExternalStore } from 'react';
import { Stopped } from '@/workers/stoppable';

/** What the kept line has to say beside the log: a fault, or that something was taken back. */
export interface Word {
  text: string;
  fault: boolean;
}

let word: Word | null = null;
const listeners = new Set<() => void>();

export function say(text: string, fault = false): void {
  word = text ? { text, fault } : null;
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
    else say(`Not kept: ${error instanceof Error ? error.message : String(error)}`, true);
    return null;
  } finally {
    underWay.delete(work);
  }
}
