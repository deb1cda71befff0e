/** All tabs and the worker that makes copies hear each other here. */
const channelName = 'gribbet-copies';

export interface CopyWord {
  /** A copy is wanted now. */
  now?: true;
}

let worker: Worker | null = null;

/** Keeps copies in the background, as long as this page is open. */
export function keepCopies(): void {
  // Where pages are tested without a browser there are none.
  if (typeof Worker === 'undefined') return;
  worker ??= new Worker(new URL('./copies.worker.ts', import.meta.url), { type: 'module' });
}

/** Has copies made now, wherever there is a place for them. */
export function copyNow(): void {
  const channel = new BroadcastChannel(channelName);
  channel.postMessage({ now: true } satisfies CopyWord);
  channel.close();
}

/** Hears when a copy is wanted now. */
export function onCopyNow(wanted: () => void): void {
  new BroadcastChannel(channelName).onmessage = ({ data }: MessageEvent<CopyWord>) => data.now && wanted();
}
