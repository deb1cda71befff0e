import { mkdtempSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { codeOf, sittingRows } from './classroom';
import { browser, secret, startServer, type ServerProcess } from './serverProcess';

/** What comes in drips, or stops half way: real sockets against the server as a process. */

let server: ServerProcess;
const desk = browser(() => server.origin);
const joinCode = codeOf(0);

beforeAll(async () => {
  server = await startServer(mkdtempSync(join(tmpdir(), 'gribbet-slow-')));
  await desk('POST', '/pair', { secret });
  await desk('POST', '/desk/changes', { changes: sittingRows(2, { accessCode: '' }) });
});
afterAll(() => server.kill());

/** Begins an attempt, and a way to send to it piece by piece. */
async function begun(code: string) {
  const reply = await fetch(`${server.origin}/api/exchange/start`, {
    method: 'POST',
    headers: { origin: server.origin, 'content-type': 'application/json' },
    body: JSON.stringify({ joinCode: code, sittingId: 'sitting1', accessCode: '', tabId: 'tab' }),
  });
  const { packet } = (await reply.json()) as { packet: { attemptId: string } };
  const cookie = reply.headers.getSetCookie()[0]?.split(';')[0] ?? '';
  const open = (length: number) =>
    httpRequest(`${server.origin}/api/exchange/attempts/${packet.attemptId}/answers`, {
      method: 'POST',
      headers: {
        origin: server.origin,
        cookie,
        'content-type': 'application/json',
        'content-length': length,
      },
    });
  return { attemptId: packet.attemptId, open };
}

const body = (text: string, sequence: number) =>
  Buffer.from(
    JSON.stringify({
      answers: { q4: { response: { text }, at: '2026-11-23T10:00:00.000Z' } },
      comeBack: null,
      tabId: 'tab',
      sequence,
    }),
  );

/** What the desk finds in the box for an attempt. */
async function lies(attemptId: string): Promise<unknown> {
  const { body: news } = await desk('GET', '/desk/news?after=0');
  const { attempts } = news as {
    attempts: { id: string; answers: Record<string, { response: { text: string } }> }[];
  };
  return attempts.find(({ id }) => id === attemptId)?.answers.q4?.response.text;
}

it('an answer that drips in is taken when it is whole, and nobody waits for it', async () => {
  const { attemptId, open } = await begun(joinCode);
  const whole = body('iron near the compass', 1);
  const slow = open(whole.length);
  const answered = new Promise<number>((resolve) =>
    slow.on('response', (reply) => resolve(reply.statusCode ?? 0)),
  );
  let others = 0;
  for (let at = 0; at < whole.length; at += 8) {
    slow.write(whole.subarray(at, at + 8));
    await after(20);
    // Asked and answered while the other is still on its way.
    if ((await desk('GET', '/desk/state')).status === 200) others += 1;
    if (at + 8 < whole.length) expect(await lies(attemptId)).toBeUndefined();
  }
  slow.end();
  expect(await answered).toBe(200);
  expect(others).toBe(Math.ceil(whole.length / 8));
  expect(await lies(attemptId)).toBe('iron near the compass');
});

it('what stops half way leaves nothing, and goes whole the next time', async () => {
  const { attemptId, open } = await begun(codeOf(1));
  const whole = body('a long answer that breaks off', 1);
  const broken = open(whole.length);
  broken.on('error', () => undefined);
  broken.write(whole.subarray(0, whole.length - 5));
  await after(200);
  broken.destroy();
  await after(200);
  expect(await lies(attemptId)).toBeUndefined();
  const again = open(whole.length);
  const answered = new Promise<number>((resolve) =>
    again.on('response', (reply) => resolve(reply.statusCode ?? 0)),
  );
  again.end(whole);
  expect(await answered).toBe(200);
  expect(await lies(attemptId)).toBe('a long answer that breaks off');
  expect(server.said()).not.toMatch(/long answer|failed/);
});
