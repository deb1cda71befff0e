import fc from 'fast-check';
import { afterEach, expect, it } from 'vitest';
import type { MailboxPresence } from '@/core/exchange/mailbox';
import { codeOf, sittingRows } from './classroom';
import { MovingAddress, newCluster, noPostgres, type Cluster } from './postgres';
import { SendingClass } from './sendingClass';
import { at } from './samples';
import { browser, secret, startServer, type ServerProcess } from './serverProcess';

const kills = Number(process.env.SHARED_KILLS ?? 8);
const students = 50;
const ended: (() => unknown)[] = [];
afterEach(async () => {
  for (const end of ended.splice(0)) await end();
});

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const running = async (): Promise<Cluster> => {
  const cluster = await newCluster();
  ended.push(cluster.kill);
  return cluster;
};

it.skipIf(noPostgres)(
  `three servers on one database: one killed ${kills} times, then the database, whose standby takes over: nothing acknowledged is missing or twice`,
  async () => {
    const primary = await running();
    const standby = await primary.standby();
    ended.push(standby.kill);
    const address = await MovingAddress.at(primary.port);
    ended.push(() => address.close());
    const url = `postgres://gribbet@127.0.0.1:${address.port}/postgres`;
    const servers: ServerProcess[] = await Promise.all([1, 2, 3].map(() => startServer(url)));
    ended.push(() => Promise.all(servers.map((server) => server.kill())));
    const ports = servers.map(({ port }) => port);
    const first = servers[0]?.origin ?? '';
    const desk = browser(() => first);
    await desk('POST', '/pair', { secret });
    expect((await desk('POST', '/desk/changes', { changes: sittingRows(students) })).status).toBe(200);

    // As a proxy that goes round: whoever finds nobody asks the next one.
    let turn = 0;
    const next = () => servers[turn++ % servers.length]?.origin ?? '';
    const sending = new SendingClass(students, next);
    const acknowledges = async (more: number) => {
      const from = sending.acknowledged;
      while (sending.acknowledged < from + more) await wait(5);
    };

    const seed = Date.now() % 100_000;
    const moments = fc.sample(
      fc.record({ which: fc.integer({ min: 0, max: 2 }), afterMs: fc.integer({ min: 0, max: 150 }) }),
      { numRuns: kills, seed },
    );
    for (const { which, afterMs } of moments) {
      await acknowledges(students);
      await wait(afterMs);
      await servers[which]?.kill();
      servers[which] = await startServer(url, ports[which]);
    }

    await acknowledges(students);
    await primary.kill();
    standby.promote();
    address.moveTo(standby.port);
    // Students saw a pause; the same servers go on.
    await acknowledges(students * 3);
    await sending.end();
    await sending.expectKept(servers[1]?.origin ?? '', `seed ${seed}`);
    console.log(
      `${sending.acknowledged} answers acknowledged; the longest that a student waited for one: ${Math.round(sending.longestMs)} ms`,
    );
  },
  120_000 + kills * 4_000,
);

it.skipIf(noPostgres)(
  'what two servers share: an attempt, what was guessed, signs of life, news',
  async () => {
    const cluster = await running();
    const [one, other] = await Promise.all([startServer(cluster.url), startServer(cluster.url)]);
    ended.push(one.kill, other.kill);
    const desk = browser(() => other.origin);
    await desk('POST', '/pair', { secret });
    await desk('POST', '/desk/changes', { changes: sittingRows(2) });

    let origin = one.origin;
    const student = browser(() => origin);
    const asked = { joinCode: codeOf(0), sittingId: 'sitting1', accessCode: '', tabId: 'tab' };
    const { packet } = (await student('POST', '/start', asked)).body as { packet: { attemptId: string } };
    const attempt = `/attempts/${packet.attemptId}`;
    const answers = { q3: { response: { text: 'west' }, at } };
    const request = { answers, comeBack: null, tabId: 'tab', sequence: 1 };
    // The one it began on is gone: the other knows the device, and the attempt.
    await one.kill();
    origin = other.origin;
    expect(await student('POST', `${attempt}/answers`, request)).toMatchObject({
      body: { answered: ['q3'] },
    });

    const again = await startServer(cluster.url);
    ended.push(again.kill);
    origin = again.origin;
    await student('POST', `${attempt}/present`, { tabId: 'tab' });
    await expect
      .poll(async () => ((await desk('GET', '/desk/present?after=0')).body as MailboxPresence).seen)
      .toEqual([[packet.attemptId, expect.any(Number)]]);

    // Ten secrets are tried in turn; after that neither takes another, not even the right one.
    const guesser = browser(() => origin);
    const statuses: number[] = [];
    for (let n = 0; n < 12; n++) {
      origin = n % 2 ? again.origin : other.origin;
      statuses.push((await guesser('POST', '/pair', { secret: `guess number ${n}` })).status);
    }
    expect(statuses).toEqual([...Array<number>(11).fill(401), 429]);
    expect((await guesser('POST', '/pair', { secret })).status).toBe(429);
  },
  60_000,
);
