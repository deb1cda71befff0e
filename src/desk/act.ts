import { faultWords } from '@/words/faults';
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
let holdsUntil = 0;
const listeners = new Set<() => void>();

export function say(text: string, fault = false, unsaved = false): void {
  word = text ? { text, fault, unsaved } : null;
  holdsUntil = 0;
  for (const listener of listeners) listener();
}

/** What has to be read holds so long against what only makes room. */
const readingMs = 15_000;

/** Says what somebody has to read: it stays, though acts go on. */
export function sayToRead(text: string): void {
  say(text, true);
  holdsUntil = performance.now() + readingMs;
}

/** Makes room for what comes: clearing it later could wipe away a newer word. */
function makeRoom(): void {
  if (performance.now() >= holdsUntil) say('');
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
export function untilSaved(): Promise<unknown> | null {
  return underWay.size === 0 ? null : Promise.allSettled([...underWay]);
}

/** Runs a command from a control; a fault goes to the kept line, so that nothing fails in silence. */
export async function act<T>(work: Promise<T>): Promise<T | null> {
  makeRoom();
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

/** Acts for which there was no room, in their order. */
const waiting: (() => Promise<unknown>)[] = [];
let timer: ReturnType<typeof setTimeout> | null = null;
/** They are tried again after so long. */
const againMs = 5_000;

/** The same for an act that is done as soon as there is room, where there is none now; those after it wait with it. */
export async function actWhenRoom<T>(make: () => Promise<T>): Promise<T | null> {
  if (waiting.length === 0)
    try {
      const work = make();
      underWay.add(work);
      makeRoom();
      return await work.finally(() => underWay.delete(work));
    } catch (error) {
      if (!isFull(error)) return act(Promise.reject(error));
    }
  waiting.push(make);
  say(waitingWords(), true, true);
  timer ??= setTimeout(() => void tryAgain(), againMs);
  return null;
}

async function tryAgain(): Promise<void> {
  timer = null;
  const before = waiting.length;
  let fault: unknown = null;
  for (let next = waiting[0]; next; next = waiting[0]) {
    try {
      await next();
    } catch (error) {
      if (isFull(error)) {
        say(waitingWords(), true, true);
        timer = setTimeout(() => void tryAgain(), againMs);
        return;
      }
      fault = error;
    }
    waiting.shift();
  }
  if (fault) say(unsavedWords(fault), true);
  else
    say(
      before === 1
        ? 'Space is free again: your change is saved'
        : `Space is free again: all ${before} changes are saved`,
    );
}

const waitingWords = () =>
  `Not saved: this browser is out of space. ${
    waiting.length === 1 ? 'Your change waits' : `The last ${waiting.length} things you did wait`
  } on this page, and ${waiting.length === 1 ? 'is' : 'are'} saved as soon as there is room. Free space on the disk, or save the desk to a file and delete what you no longer need.`;

/** Why something was not stored, and what to do. */
export function unsavedWords(error: unknown): string {
  if (isFull(error))
    return 'Not saved: this browser is out of space. What you wrote stays on this page and is saved as soon as there is room. Save a backup and delete what you no longer need, or free space on the disk.';
  return `Not saved: ${faultWords(error)}`;
}

/** Whether storing failed for want of room; Dexie wraps what the browser says. */
export function isFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  const inner = (error as { inner?: unknown }).inner;
  return error.name === 'QuotaExceededError' || /QuotaExceeded/.test(error.message) || isFull(inner);
}
