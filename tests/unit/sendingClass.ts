import { expect } from 'vitest';
import type { MailboxNews } from '@/core/exchange/mailbox';
import { codeOf } from './classroom';
import { at } from './samples';
import { browser, secret } from './serverProcess';

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** A class that sits and sends without a pause, and again what was not acknowledged; as the page does. */
export class SendingClass {
  acknowledged = 0;
  /** The longest that a student waited for an answer to be acknowledged, ms. */
  longestMs = 0;
  private over = false;
  private readonly attempts: string[] = [];
  /** By attempt, the last answer that was acknowledged, and the last that was sent. */
  private readonly kept = new Map<string, number>();
  private readonly sent = new Map<string, number>();
  private readonly sitting: Promise<unknown>;

  /** @param origin the server that is asked next */
  constructor(
    students: number,
    private readonly origin: () => string,
  ) {
    this.sitting = Promise.all(Array.from({ length: students }, (_, number) => this.sit(number)));
  }

  async end(): Promise<void> {
    this.over = true;
    await this.sitting;
  }

  private async sit(number: number): Promise<void> {
    const ask = browser(this.origin);
    let attemptId = '';
    let count = 0;
    for (let since = performance.now(); !this.over;) {
      try {
        if (attemptId === '') {
          const asked = { joinCode: codeOf(number), sittingId: 'sitting1', accessCode: '', tabId: 'tab' };
          const { body } = await ask('POST', '/start', asked);
          attemptId = (body as { packet: { attemptId: string } }).packet.attemptId;
          this.attempts.push(attemptId);
        }
        count += 1;
        this.sent.set(attemptId, count);
        const answers = { q3: { response: { text: `answer ${count}` }, at } };
        const request = { answers, comeBack: null, tabId: 'tab', sequence: count };
        const reply = await ask('POST', `/attempts/${attemptId}/answers`, request);
        if (reply.status === 200) {
          this.kept.set(attemptId, count);
          this.acknowledged += 1;
          this.longestMs = Math.max(this.longestMs, performance.now() - since);
          since = performance.now();
        } else if (reply.status === 401)
          await ask('POST', `/attempts/${attemptId}/session`, { joinCode: codeOf(number) });
        else await wait(30);
      } catch {
        // Nobody there: fifty who knock without a pause would take the processor from the server that starts.
        await wait(30);
      }
    }
  }

  /**
   * Asks a server for all that it has: nothing acknowledged is missing, nothing is there twice.
   *
   * @param named said where it is not so
   */
  async expectKept(origin: string, named: string): Promise<void> {
    const desk = browser(() => origin);
    await desk('POST', '/pair', { secret });
    const there = new Map<string, MailboxNews['attempts'][0]>();
    for (let after = 0, more = true; more;) {
      const news = (await desk('GET', `/desk/news?after=${after}`)).body as MailboxNews;
      for (const attempt of news.attempts) there.set(attempt.id, attempt);
      [after, more] = [news.rev, news.more];
    }
    const attempts = [...there.values()];
    expect(new Set(attempts.map(({ studentId }) => studentId)).size, named).toBe(attempts.length);
    // Also one whose student was not told of it any more: the server died between the disk and the answer.
    expect([...there.keys()]).toEqual(expect.arrayContaining(this.attempts));
    for (const attempt of attempts) {
      const { text } = (attempt.answers.q3?.response ?? { text: 'answer 0' }) as { text: string };
      const count = Number(text.split(' ')[1]);
      const name = `${attempt.id}, ${named}`;
      expect(count, name).toBeGreaterThanOrEqual(this.kept.get(attempt.id) ?? 0);
      expect(count, name).toBeLessThanOrEqual(this.sent.get(attempt.id) ?? 0);
      const begun = attempt.events.filter(({ kind }) => kind === 'started');
      expect(begun, name).toHaveLength(1);
    }
  }
}
