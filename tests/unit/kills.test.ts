import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { sittingRows } from './classroom';
import { SendingClass } from './sendingClass';
import { browser, secret, startServer, type ServerProcess } from './serverProcess';

const kills = Number(process.env.SERVER_KILLS ?? 20);
const students = 50;

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

it(
  `killed ${kills} times while ${students} students send: nothing acknowledged is missing, nothing is there twice`,
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'gribbet-kills-'));
    let server: ServerProcess = await startServer(folder);
    const { port, origin } = server;
    const desk = browser(() => origin);
    await desk('POST', '/pair', { secret });
    expect((await desk('POST', '/desk/changes', { changes: sittingRows(students) })).status).toBe(200);
    const sending = new SendingClass(students, () => origin);

    // Random moments, drawn from a seed that is told when it fails: after the start, or after it acknowledged something,
    // as a busy machine may take longer than that to come so far.
    const seed = Date.now() % 100_000;
    const moments = fc.sample(fc.record({ afterMs: fc.integer({ min: 0, max: 120 }), first: fc.boolean() }), {
      numRuns: kills,
      seed,
    });
    for (const { afterMs, first } of moments) {
      const before = sending.acknowledged;
      while (first && sending.acknowledged === before) await wait(1);
      await wait(afterMs);
      await server.kill();
      server = await startServer(folder, port);
    }
    await sending.end();
    await server.kill();
    server = await startServer(folder, port);
    const named = `seed ${seed}`;
    expect(sending.acknowledged, named).toBeGreaterThanOrEqual(moments.filter(({ first }) => first).length);
    await sending.expectKept(origin, named);
    await server.kill();
  },
  60_000 + kills * 3_000,
);
