import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';

test('a server that is ended answers what was asked, tells a desk that listens to come again, and is gone', async () => {
  const port = Number(process.env.E2E_PORT ?? 4399) + 7;
  const secret = 'tide tables 2026 for tests';
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    env: {
      ...process.env,
      ...{ PORT: String(port), HOST: '127.0.0.1', GRIBBET_LOG: 'json', GRIBBET_TEACHER_SECRET: secret },
      GRIBBET_DATA: mkdtempSync(join(tmpdir(), 'gribbet-ending-')),
    },
  });
  const ended = once(server, 'exit');
  let said = '';
  server.stdout.on('data', (chunk) => (said += String(chunk)));
  const exchange = `http://127.0.0.1:${port}/api/exchange`;
  await expect.poll(() => said, { timeout: 60_000 }).toContain('Gribbet is at');
  expect(await (await fetch(`${exchange}/ready`)).json()).toEqual({ is: 'ready' });

  const paired = await fetch(`${exchange}/pair`, {
    method: 'POST',
    headers: { origin: `http://127.0.0.1:${port}` },
    body: JSON.stringify({ secret }),
  });
  const cookie = paired.headers.get('set-cookie')?.split(';')[0] ?? '';
  const listening = (await fetch(`${exchange}/desk/stream`, { headers: { cookie } })).text();
  // Over connections that are kept, as a proxy's are: everything that is taken is answered.
  const statuses = new Set<number>();
  let refused = false;
  const asking = Promise.all(
    Array.from({ length: 8 }, async () => {
      while (!refused)
        await fetch(exchange).then(
          ({ status }) => statuses.add(status),
          () => (refused = true),
        );
    }),
  );
  server.kill('SIGTERM');
  expect(await listening).toContain('retry: 1000');
  await asking;
  expect(await ended).toEqual([0, null]);
  expect([...statuses]).toEqual([200]);
  // Each line that it wrote for programs is JSON; what was asked is named without what was said.
  const lines = said.split('\n').filter((line) => line.startsWith('{'));
  expect(lines.map((line) => (JSON.parse(line) as { path?: string }).path)).toContain('/api/exchange/pair');
  expect(said).not.toContain(secret);
});
