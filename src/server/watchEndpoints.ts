import { timingSafeEqual, createHash } from 'node:crypto';
import { setTimeout as sleep } from 'node:timers/promises';
import { smallBytes, type Endpoint, type Surroundings } from './endpoint';
import { Refused } from './respond';

/** A store that does not answer within so long is not there. */
const storeMs = 3_000;

/** What a proxy, a watchdog and a collector of metrics ask of the server. */
export function watchEndpoints({ store, settings, metrics, stopping }: Surroundings): Endpoint[] {
  const ready = async (): Promise<'ready' | 'stopping' | 'noStore'> => {
    if (stopping.aborted) return 'stopping';
    const there = await Promise.race([
      store.rev().then(
        () => true,
        () => false,
      ),
      sleep(storeMs, false, { ref: false }),
    ]);
    return there ? 'ready' : 'noStore';
  };
  return [
    {
      method: 'GET',
      path: '/health',
      role: 'anyone',
      most: smallBytes,
      answer: async ({ http }) => http.json({ is: 'alive' }),
    },
    {
      method: 'GET',
      path: '/ready',
      role: 'anyone',
      most: smallBytes,
      answer: async ({ http }) => {
        const is = await ready();
        return http.json({ is }, is === 'ready' ? 200 : 503);
      },
    },
    {
      method: 'GET',
      path: '/metrics',
      role: 'anyone',
      most: smallBytes,
      answer: async ({ http }) => {
        // As if there were none, for who does not know the token.
        const { metricsToken } = settings;
        if (!metricsToken || !sameText(http.req.header('authorization') ?? '', `Bearer ${metricsToken}`))
          throw new Refused('notFound');
        const { body, type } = await metrics.text();
        return http.body(body, 200, { 'content-type': type });
      },
    },
  ];
}

const digest = (text: string) => createHash('sha256').update(text).digest();
const sameText = (a: string, b: string) => timingSafeEqual(digest(a), digest(b));
