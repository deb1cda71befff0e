import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { Agent, setGlobalDispatcher } from 'undici';
import type { MailboxChange, MailboxNews } from '@/core/exchange/mailbox';
import { kindNamed, type Question } from '@/core/kinds';
import { codeOf, paper, sittingRows } from '../tests/unit/classroom';
import { browser, secret } from '../tests/unit/serverProcess';
import { at } from '../tests/unit/samples';

/**
 * A class hour of 550 students at 50 questions, squeezed into a minute, against the real server: every answer is handed
 * over by itself and is on disk when it is answered. `npm run bench:server`
 */

const students = 550;
const questions = 50;
const windowMs = 60_000;
const port = 4555;
const origin = () => `http://127.0.0.1:${port}`;

setGlobalDispatcher(new Agent({ connections: students, pipelining: 1 }));

const folder = mkdtempSync(join(tmpdir(), 'gribbet-bench-'));
const server = spawn(process.execPath, ['scripts/start.mjs'], {
  env: {
    ...process.env,
    PORT: String(port),
    HOST: '127.0.0.1',
    GRIBBET_DATA: folder,
    GRIBBET_TEACHER_SECRET: secret,
  },
  stdio: 'ignore',
});
// However this ends: a server left behind would be measured by the next run.
process.on('exit', () => {
  server.kill();
  rmSync(folder, { recursive: true, force: true });
});
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
for (;;) {
  try {
    if ((await fetch(`${origin()}/api/exchange`)).ok) break;
  } catch {
    await wait(200);
  }
}

const fifty: Question[] = Array.from({ length: questions }, (_, number) => ({
  ...kindNamed('shortText').empty(() => 'k'),
  kind: 'shortText' as const,
  id: `q${number}`,
  stem: `Question ${number}: which light is seen, and from where?`,
  accepted: [],
  forgive: { case: true, spaces: true, accents: true },
}));
const rows: MailboxChange[] = [
  ...sittingRows(students).filter((row) => !('table' in row && row.table === 'papers')),
  { table: 'papers', row: { ...paper, questions: fifty } },
];
const desk = browser(origin);
await desk('POST', '/pair', { secret });
for (let from = 0; from < rows.length; from += 500)
  await desk('POST', '/desk/changes', { changes: rows.slice(from, from + 500) });

const devices = await Promise.all(
  Array.from({ length: students }, async (_, number) => {
    const ask = browser(origin);
    const asked = { joinCode: codeOf(number), sittingId: 'sitting1', accessCode: '', tabId: 'tab' };
    const { body } = await ask('POST', '/start', asked);
    return { ask, attemptId: (body as { packet: { attemptId: string } }).packet.attemptId };
  }),
);

/** How long the same server takes to say that it is there, with nobody else asking. */
const idle: number[] = [];
for (let n = 0; n < 300; n++) {
  const before = performance.now();
  await desk('GET', '/');
  idle.push(performance.now() - before);
}

const latencies: number[] = [];
let failed = 0;
/** By attempt, how many answers were acknowledged. */
const kept = new Map<string, number>();
const begin = performance.now();
await Promise.all(
  devices.map(async ({ ask, attemptId }, student) => {
    for (let number = 0; number < questions; number++) {
      // Evenly over the minute, each student a little apart from the others.
      const due = ((number + student / students) * windowMs) / questions;
      await wait(Math.max(0, due - (performance.now() - begin)));
      const answers = { [`q${number}`]: { response: { text: `student ${student} at ${number}` }, at } };
      const before = performance.now();
      const request = { answers, comeBack: null, tabId: 'tab', sequence: number };
      const status = await ask('POST', `/attempts/${attemptId}/answers`, request).then(
        (reply) => reply.status,
        () => 0, // no answer within ten seconds
      );
      latencies.push(performance.now() - before);
      if (status === 200) kept.set(attemptId, (kept.get(attemptId) ?? 0) + 1);
      else failed += 1;
    }
  }),
);
const tookS = (performance.now() - begin) / 1000;

let lost = 0;
let after = 0;
const seen = new Map<string, number>();
for (;;) {
  const news = (await desk('GET', `/desk/news?after=${after}`)).body as MailboxNews;
  for (const attempt of news.attempts) seen.set(attempt.id, Object.keys(attempt.answers).length);
  after = news.rev;
  if (!news.more) break;
}
for (const { attemptId } of devices)
  lost += Math.max(0, (kept.get(attemptId) ?? 0) - (seen.get(attemptId) ?? 0));
const share = (values: number[], part: number) =>
  values.sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(part * values.length))] ?? 0;
const ms = (value: number) => `${value.toFixed(1)} ms`;
console.log(`${students} students, ${questions} questions, ${cpus().length} processors`);
console.log(`${latencies.length} answers in ${tookS.toFixed(1)} s, ${failed} not acknowledged, ${lost} lost`);
console.log(
  `an answer on disk: median ${ms(share(latencies, 0.5))}, 99 in 100 within ${ms(share(latencies, 0.99))}`,
);
console.log(
  `slowest ${ms(share(latencies, 1))}; the idle server answers "I am there" in ${ms(share(idle, 0.5))}`,
);
console.log(`ratio of the medians: ${(share(latencies, 0.5) / share(idle, 0.5)).toFixed(1)}`);
process.exit(failed + lost > 0 ? 1 : 0);
