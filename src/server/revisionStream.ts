import type { Context } from 'hono';
import { streamSSE } from 'hono/streaming';
import type { Surroundings } from './endpoint';
import { Refused } from './respond';

const mostStreams = 64;
/** Between two signs that the stream is there; and between two changes, so that several are told at once. */
const beatMs = 15_000;
const gatherMs = 150;
/** So soon after the server ended listeners come again. */
const againMs = 1_000;

/** Server-sent events (HTML Living Standard, section 9.2): the revision, whenever it has changed. */
export function revisionStream({
  store,
  metrics,
  stopping,
}: Pick<Surroundings, 'store' | 'metrics' | 'stopping'>): (http: Context) => Response {
  let streams = 0;
  /** @throws {Refused} when there are too many of them */
  return (http) => {
    if (stopping.aborted) throw new Refused('failed', 'stopping');
    if (streams >= mostStreams) throw new Refused('failed', 'too many streams');
    const answer = streamSSE(http, async (events) => {
      streams += 1;
      metrics.streams.set(streams);
      let wake: () => void = () => undefined;
      const unwatch = store.watch(() => wake());
      events.onAbort(() => wake());
      const wakeNow = () => wake();
      stopping.addEventListener('abort', wakeNow);
      http.req.raw.signal.addEventListener('abort', () => events.abort());
      try {
        for (let told = -1; !events.aborted && !stopping.aborted;) {
          const woken = new Promise<void>((resolve) => (wake = resolve));
          const rev = await store.rev();
          if (rev === told) await events.write(': still here\n\n');
          else await events.writeSSE({ data: JSON.stringify({ rev }) });
          told = rev;
          const toldAt = performance.now();
          await Promise.race([woken, events.sleep(beatMs)]);
          // So that several go together; one that comes alone is told at once.
          const left = toldAt + gatherMs - performance.now();
          if (left > 0 && !events.aborted && !stopping.aborted) await events.sleep(left);
        }
        // Whoever listened comes again: to the server that is there then.
        if (!events.aborted) await events.write(`retry: ${againMs}\n\n`);
      } finally {
        streams -= 1;
        metrics.streams.set(streams);
        unwatch();
        stopping.removeEventListener('abort', wakeNow);
      }
    });
    // What stands between must not hold it back.
    answer.headers.set('cache-control', 'no-store');
    answer.headers.set('x-accel-buffering', 'no');
    return answer;
  };
}
