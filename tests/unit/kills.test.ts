import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { MailboxNews } from '@/core/exchange/mailbox';
import { codeOf, sittingRows } from './classroom';
import { browser, secret, startServer, type ServerProcess } from './serverProcess';
import { at } from './samples';

const kills = Number(process.env.SERVER_KILLS ?? 40);
const students = 50;

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

it(
  `killed ${kills} times while ${students} students send: nothing acknowledged is missing, nothing is there twice`,
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'gribbet-kills-'));
    let server: ServerProcess = await startServer(folder);
    const { port } = server;
    const origin = () => `http://127.0.0.1:${port}`;
    const desk = browser(origin);
    await desk('POST', '/pair', { secret });
    expect((await desk('POST', '/desk/changes', { changes: sittingRows(students) })).status).toBe(200);

    let over = false;
    let acknowledged = 0;
    const attempts: string[] = [];
    /** By attempt, the last answer that was acknowledged, and the last that was sent. */
    const kept = new Map<string, number>();
    const sent = new Map<string, number>();

    /** Sends until all is over, and again what was not acknowledged; as the page does. */
    const sit = async (number: number) => {
      const ask = browser(origin);
      let attemptId = '';
      let count = 0;
      while (!over) {
        try {
          if (attemptId === '') {
            const asked = { joinCode: codeOf(number), sittingId: 'sitting1', accessCode: '', tabId: 'tab' };
            const { body } = await ask('POST', '/start', asked);
            attemptId = (body as { packet: { attemptId: string } }).packet.attemptId;
            attempts.push(attemptId);
          }
          count += 1;
          sent.set(attemptId, count);
          const answers = { q3: { response: { text: `answer ${count}` }, at } };
          const request = { answers, comeBack: null, tabId: 'tab', sequence: count };
          const reply = await ask('POST', `/attempts/${attemptId}/answers`, request);
          if (reply.status === 200) {
            kept.set(attemptId, count);
            acknowledged += 1;
          } else if (reply.status === 401)
            await ask('POST', `/attempts/${attemptId}/session`, { joinCode: codeOf(number) });
        } catch {
          // Nobody there: fifty who knock without a pause would take the processor from the server that starts.
          await wait(30);
        }
      }
    };
    const class_ = Array.from({ length: students }, (_, number) => sit(number));

    // Random moments, drawn from a seed that is told when it fails: after the start, or after it acknowledged something,
    // as a busy machine may take longer than that to come so far.
    const seed = Date.now() % 100_000;
    const moments = fc.sample(fc.record({ afterMs: fc.integer({ min: 0, max: 120 }), first: fc.boolean() }), {
      numRuns: kills,
      seed,
    });
    for (const { afterMs, first } of moments) {
      const before = acknowledged;
      while (first && acknowledged === before) await wait(1);
      await wait(afterMs);
      await server.kill();
      server = await startServer(folder, port);
    }
    over = true;
    await Promise.all(class_);
    await server.kill();
    server = await startServer(folder, port);

    const news: MailboxNews['attempts'] = [];
    const { body } = await browserAgain(origin)('GET', '/desk/news?after=0');
    news.push(...(body as MailboxNews).attempts);
    await server.kill();

    expect(acknowledged, `seed ${seed}`).toBeGreaterThanOrEqual(moments.filter(({ first }) => first).length);
    expect(new Set(news.map(({ id }) => id)).size).toBe(news.length);
    expect(new Set(news.map(({ studentId }) => studentId)).size).toBe(news.length);
    // Also one whose student was not told of it any more: the server died between the disk and the answer.
    expect(news.map(({ id }) => id)).toEqual(expect.arrayContaining(attempts));
    for (const attempt of news) {
      const { text } = (attempt.answers.q3?.response ?? { text: 'answer 0' }) as { text: string };
      const there = Number(text.split(' ')[1]);
      const name = `${attempt.id}, seed ${seed}`;
      expect(there, name).toBeGreaterThanOrEqual(kept.get(attempt.id) ?? 0);
      expect(there, name).toBeLessThanOrEqual(sent.get(attempt.id) ?? 0);
      expect(
        attempt.events.filter(({ kind }) => kind === 'started'),
        name,
      ).toHaveLength(1);
    }

    function browserAgain(from: () => string) {
      const again = browser(from);
      return async (method: string, path: string) => {
        await again('POST', '/pair', { secret });
        return again(method, path);
      };
    }
  },
  60_000 + kills * 6_000,
);
