import { setTimeout as sleep } from 'node:timers/promises';
import { createServer, connect, type Server, type Socket } from 'node:net';

/** A network between a browser and a server: so many bits a second in each direction, and a delay. */
export async function slowNetwork(
  to: { host: string; port: number },
  { bitsPerSecond, delayMs }: { bitsPerSecond: number; delayMs: number },
): Promise<{ port: number; passed: () => { up: number; down: number }; close: () => void }> {
  const passed = { up: 0, down: 0 };
  // All connections share the line.
  const free = { up: 0, down: 0 };
  const pass = (from: Socket, into: Socket, way: 'up' | 'down') => {
    // One after another: timers of the same moment may come in any order.
    let last: Promise<unknown> = Promise.resolve();
    const later = (at: number, what: () => void) => {
      last = last.then(() => sleep(Math.max(0, at - performance.now()))).then(what);
    };
    from.on('data', (bytes) => {
      passed[way] += bytes.length;
      const now = performance.now();
      free[way] = Math.max(now, free[way]) + (bytes.length * 8 * 1000) / bitsPerSecond;
      from.pause();
      // The next is read once this one is out; it arrives a delay later.
      setTimeout(() => from.resume(), Math.max(0, free[way] - now));
      later(free[way] + delayMs, () => into.write(bytes));
    });
    from.on('end', () => later(performance.now() + delayMs, () => into.end()));
    from.on('error', () => into.destroy());
  };
  const server: Server = createServer((browser) => {
    const upstream = connect(to.port, to.host);
    pass(browser, upstream, 'up');
    pass(upstream, browser, 'down');
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  if (address === null || typeof address === 'string') throw new Error('no port');
  return { port: address.port, passed: () => ({ ...passed }), close: () => server.close() };
}
