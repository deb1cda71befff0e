import { Agent, setGlobalDispatcher } from 'undici';
import type { MailboxChange, MailboxNews } from '@/core/exchange/mailbox';
import { kindNamed, type Question } from '@/core/kinds';
import { codeOf, paper, sittingRows } from '../tests/unit/classroom';
import { browser, secret } from '../tests/unit/serverProcess';
import { at } from '../tests/unit/samples';

/** A class that sits a paper of short texts over the network: each answer is handed over by itself. */
export interface Load {
  students: number;
  questions: number;
  /** Answers are spread evenly over so long, each student a little apart from the others. */
  windowMs: number;
  /** The servers; students go round. */
  origins: readonly string[];
}

export interface Measured {
  /** How long each answer took until it was acknowledged, ms, lowest first. */
  latencies: number[];
  tookS: number;
  notAcknowledged: number;
  lost: number;
}

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Waits until a server answers. */
export async function untilThere(origin: string): Promise<void> {
  for (;;) {
    try {
      if ((await fetch(`${origin}/api/exchange`)).ok) return;
    } catch {
      await wait(200);
    }
  }
}

/** The part of values that lies at a share of them. */
export const share = (values: readonly number[], part: number) =>
  values[Math.min(values.length - 1, Math.floor(part * values.length))] ?? 0;

/** Puts the sitting in and lets everybody start; then `answer` lets them all answer. */
export async function seated({ students, questions, windowMs, origins }: Load) {
  setGlobalDispatcher(new Agent({ connections: students, pipelining: 1 }));
  const all: Question[] = Array.from({ length: questions }, (_, number) => ({
    ...kindNamed('shortText').empty(() => 'k'),
    kind: 'shortText' as const,
    id: `q${number}`,
    stem: `Question ${number}: which light is seen, and from where?`,
    accepted: [],
    forgive: { case: true, spaces: true, accents: true },
  }));
  const rows: MailboxChange[] = [
    ...sittingRows(students).filter((row) => !('table' in row && row.table === 'papers')),
    { table: 'papers', row: { ...paper, questions: all } },
  ];
  const desk = browser(() => origins[0] ?? '');
  await desk('POST', '/pair', { secret });
  for (let from = 0; from < rows.length; from += 500)
    await desk('POST', '/desk/changes', { changes: rows.slice(from, from + 500) });

  const start = async (number: number) => {
    const ask = browser(() => origins[number % origins.length] ?? '');
    const asked = { joinCode: codeOf(number), sittingId: 'sitting1', accessCode: '', tabId: 'tab' };
    const { body } = await ask('POST', '/start', asked);
    return { ask, attemptId: (body as { packet: { attemptId: string } }).packet.attemptId };
  };
  const devices: Awaited<ReturnType<typeof start>>[] = [];
  const atOnce = 100;
  for (let from = 0; from < students; from += atOnce)
    devices.push(
      ...(await Promise.all(
        Array.from({ length: Math.min(atOnce, students - from) }, (_, index) => start(from + index)),
      )),
    );

  const answer = async (): Promise<Measured> => {
    const latencies: number[] = [];
    let notAcknowledged = 0;
    /** By attempt, how many answers were acknowledged. */
    const kept = new Map<string, number>();
    const begin = performance.now();
    await Promise.all(
      devices.map(async ({ ask, attemptId }, student) => {
        for (let number = 0; number < questions; number++) {
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
          else notAcknowledged += 1;
        }
      }),
    );
    const tookS = (performance.now() - begin) / 1000;
    const seen = new Map<string, number>();
    for (let after = 0, more = true; more;) {
      const news = (await desk('GET', `/desk/news?after=${after}`)).body as MailboxNews;
      for (const attempt of news.attempts) seen.set(attempt.id, Object.keys(attempt.answers).length);
      [after, more] = [news.rev, news.more];
    }
    let lost = 0;
    for (const { attemptId } of devices)
      lost += Math.max(0, (kept.get(attemptId) ?? 0) - (seen.get(attemptId) ?? 0));
    return { latencies: latencies.sort((a, b) => a - b), tookS, notAcknowledged, lost };
  };
  return { desk, answer };
}
