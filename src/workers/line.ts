import { lineChannel } from '@/store/lineChannel';
import type { Stopped } from '@/core/exchange/box';

/** How the desk's line to the classroom server is. */
export interface LineState {
  reach: 'asking' | 'here' | 'notPaired' | 'unreachable' | 'full' | 'failed';
  /** When both were alike last, ms since 1970. */
  heardAt: number | null;
  /** How far the server's clock is ahead of this computer's. */
  aheadMs: number;
  /** Who is stopped from coming in, because too much was guessed. */
  stopped: Stopped[];
  /** How many answers the server has that are not on the desk yet. */
  arriving: number;
}

let worker: Worker | null = null;

/** Keeps the line in the background, as long as this page is open. */
export function keepLine(): void {
  worker ??= new Worker(new URL('./deskSync.worker.ts', import.meta.url), { type: 'module' });
}

/** Tells how the line is, now and whenever that changes, until the returned function is called. */
export function watchLine(changed: (state: LineState) => void): () => void {
  keepLine();
  const channel = new BroadcastChannel(lineChannel);
  channel.onmessage = ({ data }: MessageEvent<{ state?: LineState }>) => {
    if (data.state) changed(data.state);
  };
  channel.postMessage({ tell: true });
  return () => channel.close();
}

/** Has all of the desk looked at again, as at the beginning. */
export function lookAgain(): void {
  const channel = new BroadcastChannel(lineChannel);
  channel.postMessage({ again: true });
  channel.close();
}
