import { connectionChannel } from '@/store/connectionChannel';
import type { Stopped } from '@/core/exchange/mailbox';
import { deskWorker } from './deskWorker';

/** How the desk's connection to the classroom server is. */
export interface ConnectionState {
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

/** Keeps the connection in the background, as long as this page is open. */
export function keepConnected(): void {
  worker ??= deskWorker('deskSync');
}

/** What is on the page is drawn first: a worker that starts meanwhile takes a processor from that. */
const afterMs = 100;

/** Tells how the connection is, now and whenever that changes, until the returned function is called. */
export function watchConnection(changed: (state: ConnectionState) => void): () => void {
  const timer = setTimeout(keepConnected, afterMs);
  const channel = new BroadcastChannel(connectionChannel);
  channel.onmessage = ({ data }: MessageEvent<{ state?: ConnectionState }>) => {
    if (data.state) changed(data.state);
  };
  channel.postMessage({ tell: true });
  return () => {
    clearTimeout(timer);
    channel.close();
  };
}

/** Has all of the desk looked at again, as at the beginning. */
export function lookAgain(): void {
  const channel = new BroadcastChannel(connectionChannel);
  channel.postMessage({ again: true });
  channel.close();
}
