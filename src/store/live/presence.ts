import type { Hearing } from '@/core/attempts/watching';
import { Presence } from '@/core/exchange/presence';

/** Signs of life between the tabs and workers of this desk: told, and held in memory alone. */

const channelName = 'gribbet-presence';
type Seen = [attemptId: string, at: number][];

function openChannel(): BroadcastChannel {
  const channel = new BroadcastChannel(channelName);
  // In a program outside the browser it must not keep that from ending.
  (channel as { unref?: () => void }).unref?.();
  return channel;
}

let mouth: BroadcastChannel | null = null;

/** Tells all tabs of the desk, ms since 1970, that these were heard of. */
export function tellSeen(seen: Seen): void {
  if (seen.length > 0) (mouth ??= openChannel()).postMessage(seen);
}

let ear: Hearing | null = null;

/** Who was heard of since this tab first asked. */
export function deskHearing(): Hearing {
  if (ear) return ear;
  const presence = new Presence();
  openChannel().onmessage = ({ data }: MessageEvent<Seen>) => {
    for (const [attemptId, at] of data) presence.saw(attemptId, at);
  };
  ear = { heardAt: (attemptId) => presence.at(attemptId), since: Date.now() };
  return ear;
}
