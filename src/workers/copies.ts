import type { Computer } from '@/core/model/deskHold';
import { deskWorker } from './deskWorker';

/** All tabs and the worker that makes copies hear each other here. */
const channelName = 'gribbet-copies';

export interface CopyWord {
  /** A copy is wanted now. */
  now?: true;
  /** Another computer wants the desk: the last changes are to be sent to it. */
  give?: Computer;
}

let worker: Worker | null = null;

/** Keeps copies in the background, as long as this page is open. */
export function keepCopies(): void {
  // Where pages are tested without a browser there are none.
  if (typeof Worker === 'undefined') return;
  worker ??= deskWorker('copies');
}

/** Has copies made now, wherever there is a place for them. */
export function copyNow(): void {
  const channel = new BroadcastChannel(channelName);
  channel.postMessage({ now: true } satisfies CopyWord);
  channel.close();
  // This page’s own may just be opening, and hears on the channel nothing yet.
  worker?.postMessage({ now: true } satisfies CopyWord);
}

/** Has the last changes sent, for another computer that wants the desk. */
export function giveDesk(give: Computer): void {
  const channel = new BroadcastChannel(channelName);
  channel.postMessage({ give } satisfies CopyWord);
  channel.close();
}

/** Hears what is wanted of the worker that makes copies. */
export function onCopyWord(heard: (word: CopyWord) => void): void {
  new BroadcastChannel(channelName).onmessage = ({ data }: MessageEvent<CopyWord>) => heard(data);
}
