import type { Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import type { ExchangeStore } from './exchangeStore';
import { Refused } from './respond';

const mostStreams = 64;
/** Between two signs that the stream is there; and after a change, so that several are told at once. */
const beatMs = 15_000;
const gatherMs = 150;

/** Server-sent events (HTML Living Standard, section 9.2): the revision, whenever it has changed. */
export function revisionStream(store: ExchangeStore): (http: Context) => Response {
  let streams = 0;
  /** @throws {Refused} when there are too many of them */
  return (http) => {
    if (streams >= mostStreams) throw new Refused('failed', 'too many streams');
    const answer = streamSSE(http, async (events) => {
      streams += 1;
      let wake: () => void = () => undefined;
      const unwatch = store.watch(() => wake());
      events.onAbort(() => wake());
      http.req.raw.signal.addEventListener('abort', () => events.abort());
      try {
        for (let told = -1; !events.aborted;) {
          const woken = new Promise<void>((resolve) => (wake = resolve));
          const rev = await store.rev();
          if (rev === told) await events.write(': still here\n\n');
          else await events.writeSSE({ data: JSON.stringify({ rev }) });
          told = rev;
          await Promise.race([woken, events.sleep(beatMs)]);
          // So that several go together.
          if (!events.aborted) await events.sleep(gatherMs);
        }
      } finally {
        streams -= 1;
        unwatch();
      }
    });
    // What stands between must not hold it back.
    answer.headers.set('cache-control', 'no-store');
    answer.headers.set('x-accel-buffering', 'no');
    return answer;
  };
}
