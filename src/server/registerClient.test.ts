import type { AddressInfo } from 'node:net';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { registerServer } from '../../scripts/register.mjs';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../tests/unit/samples';
import { lineItemOf, registerResults } from '@/core/formats/oneroster/writeResults';
import type { ToRegister } from '@/core/exchange/register';
import { seatsOf } from '@/core/seats/seats';
import { sendToRegister, type RegisterSettings } from './registerClient';

const now = Date.parse('2026-11-25T11:00:00.000Z');
function results(points: number): ToRegister {
  const records = {
    sitting: sittingOf({ closesAt: '2026-11-24T10:00:00.000Z' }),
    questions: paperQuestions,
    students: [
      studentOf({ number: '007' }),
      studentOf({ id: 'student2', number: 'A/B 9', familyName: 'Tran', joinCode: 'B2B2B2' }),
    ],
    allowances: [],
    attempts: [attemptOf({ answers: { q1: { response: { picked: ['b'] }, at } }, handedInAt: at })],
    marks: [markOf({ points })],
    releases: [],
    openings: [],
  };
  const about = {
    ...{ sitting: records.sitting, seats: seatsOf(records, now), now, scale: null },
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
  };
  return { item: lineItemOf(about), results: registerResults(about).results };
}

let register: ReturnType<typeof registerServer>;
let settings: RegisterSettings;
const open = async (options: Parameters<typeof registerServer>[0] = {}) => {
  register = registerServer(options);
  await new Promise<void>((listening) => register.server.listen(0, '127.0.0.1', () => listening()));
  const { port } = register.server.address() as AddressInfo; // it listens on a port
  settings = { url: `http://127.0.0.1:${port}`, clientId: 'gribbet', clientSecret: 'tide tables' };
};
beforeEach(() => open());
afterEach(() => new Promise<void>((closed) => register.server.close(() => closed())));

describe('a school register', () => {
  it('gets every result once, and corrections under the same id: nothing is doubled by sending again', async () => {
    const first = await sendToRegister(settings, results(2));
    expect(first.outcomes.map(({ is }) => is)).toEqual(['created', 'created']);
    const again = await sendToRegister(settings, results(3));
    expect(again.outcomes.map(({ is }) => is)).toEqual(['updated', 'updated']);
    expect([...register.kept.results.values()]).toMatchObject([
      {
        student: { sourcedId: '007' },
        score: 4,
        scoreStatus: 'fully graded',
        lineItem: { sourcedId: 'sitting1' },
      },
      { student: { sourcedId: 'A/B 9' }, score: null, scoreStatus: 'not submitted' },
    ]);
    expect(register.kept.lineItems.get('sitting1')).toMatchObject({
      resultValueMax: 8,
      class: { sourcedId: 'group1' },
    });
    expect(await (await fetch(settings.url)).text()).toContain('007  fully graded  4');
  });

  it('says of each result that it refuses why; the others are taken', async () => {
    await new Promise<void>((closed) => register.server.close(() => closed()));
    await open({ known: ['007'] });
    const { outcomes } = await sendToRegister(settings, results(2));
    expect(outcomes).toEqual([
      { id: 'sitting1.007', is: 'created', words: '' },
      { id: 'sitting1.A/B 9', is: 'refused', words: 'No student has the number A/B 9.' },
    ]);
  });

  it('lets nobody in with another secret, and is away where nobody answers', async () => {
    await expect(sendToRegister({ ...settings, clientSecret: 'x' }, results(2))).rejects.toThrow(
      /lets nobody in \(401\)/,
    );
    await expect(sendToRegister({ ...settings, url: 'http://127.0.0.1:9' }, results(2))).rejects.toThrow(
      /could not be reached/,
    );
  });
});
