import { request as httpRequest } from 'node:http';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { codeOf, sittingRows } from './classroom';
import { browser, secret, startServer, type ServerProcess } from './serverProcess';

/**
 * A student's side that knows nothing of ours: node:http and docs/formats.md, "The classroom server", alone. Only the
 * teacher's part around it uses our code.
 */

let server: ServerProcess;

beforeAll(async () => {
  server = await startServer(mkdtempSync(join(tmpdir(), 'gribbet-second-')));
  const desk = browser(() => server.origin);
  await desk('POST', '/pair', { secret });
  await desk('POST', '/desk/changes', { changes: sittingRows(1, { accessCode: 'ebb' }) });
});
afterAll(() => server.kill());

interface Answered {
  status: number;
  cookie: string;
  body: Record<string, unknown>;
}

function post(path: string, body: object, cookie = ''): Promise<Answered> {
  return new Promise((resolve, reject) => {
    const headers = { 'content-type': 'application/json', origin: server.origin, cookie };
    const asked = httpRequest(
      `${server.origin}/api/exchange${path}`,
      { method: 'POST', headers },
      (answer) => {
        let text = '';
        answer.on('data', (chunk) => (text += String(chunk)));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            cookie: answer.headers['set-cookie']?.[0]?.split(';')[0] ?? '',
            body: JSON.parse(text) as Record<string, unknown>,
          }),
        );
      },
    );
    asked.on('error', reject);
    asked.end(JSON.stringify(body));
  });
}

it('sits a paper from the join code to handing in, by the description alone', async () => {
  const joinCode = codeOf(0);
  expect((await post('/greet', { joinCode: 'ZZZZZZ' })).status).toBe(404);
  expect((await post('/greet', { joinCode })).body).toMatchObject({ joinCode, groups: ['Monday'] });
  const home = (await post('/home', { joinCode })).body as unknown as { sittingId: string; may: string }[];
  const sittingId = home[0]?.sittingId ?? '';
  expect(home).toMatchObject([{ may: 'start', codeAsked: true, state: 'notStarted' }]);

  const go = { joinCode, sittingId, tabId: 'a terminal' };
  expect((await post('/start', { ...go, accessCode: 'no' })).body).toEqual({
    outcome: 'refused',
    why: 'wrongCode',
  });
  const started = await post('/start', { ...go, accessCode: 'ebb' });
  const packet = started.body.packet as {
    attemptId: string;
    questions: { id: string; kind: string; options?: { id: string }[] }[];
  };
  const answers: Record<string, { response: object; at: string }> = {};
  for (const { id, kind, options } of packet.questions) {
    const picked = [options?.[0]?.id];
    const response = kind === 'oneChoice' || kind === 'severalChoices' ? { picked } : { text: 'by east' };
    answers[id] = { response, at: new Date().toISOString() };
  }
  const attempt = `/attempts/${packet.attemptId}`;
  const request = { answers, comeBack: null, tabId: 'a terminal', sequence: 1 };
  expect((await post(`${attempt}/answers`, request)).body).toEqual({ error: 'noSession' });
  const status = await post(`${attempt}/answers`, request, started.cookie);
  expect(status.body).toMatchObject({ state: 'working', elsewhere: false });
  expect(new Set(status.body.answered as string[])).toEqual(new Set(Object.keys(answers)));

  const misshapen = {
    ...request,
    sequence: 2,
    answers: { q1: { response: { text: 'b' }, at: answers.q1?.at } },
  };
  expect((await post(`${attempt}/answers`, misshapen, started.cookie)).status).toBe(200);
  expect((await post(`${attempt}/hand-in`, {}, started.cookie)).body).toMatchObject({ state: 'handedIn' });
  expect((await post('/result', { joinCode, sittingId })).body).toBeNull();
});

it('says nothing of it in its log', () => {
  expect(server.said()).not.toMatch(/by east|ebb|Family|SECRET/);
  expect(server.said()).not.toContain(codeOf(0));
});
