import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { untilThere } from '../../bench/load';
import { withoutKeys } from '@/core/formats/packet/paper';
import type { MailboxChange, MailboxNews } from '@/core/exchange/mailbox';
import { codeOf, paper, sittingRows } from '../unit/classroom';
import { samples } from '../unit/samples';
import { browser } from '../unit/serverProcess';
import { firefox, until, webkit, type OtherBrowser, type Page } from './hand';

/**
 * A student's whole path over the server, with every kind of question, then the demo's desk: its grid while somebody sits, and
 * marking by keys; in browsers that are not Chromium. `npm run test:browsers`
 */

const port = 4497;
const origin = `http://127.0.0.1:${port}`;
const secret = 'tide tables 2026 for tests';
const beside: ChildProcess[] = [];
const started = (command: string, args: string[], env: Record<string, string> = {}) =>
  beside.push(spawn(command, args, { env: { ...process.env, ...env }, stdio: 'ignore' }));

beforeAll(async () => {
  started(process.execPath, ['scripts/start.mjs'], {
    ...{ PORT: String(port), HOST: '127.0.0.1', GRIBBET_TEACHER_SECRET: secret },
    GRIBBET_DATA: mkdtempSync(join(tmpdir(), 'gribbet-browsers-')),
  });
  started('Xvfb', [':98', '-screen', '0', '1280x900x24', '-nolisten', 'tcp']);
  started('WebKitWebDriver', ['--port=4498'], {
    DISPLAY: ':98',
    GDK_BACKEND: 'x11',
    // As root there is no sandbox to be had; without a GPU there is nothing to compose on.
    WEBKIT_DISABLE_SANDBOX_THIS_IS_DANGEROUS: '1',
    WEBKIT_DISABLE_COMPOSITING_MODE: '1',
  });
  await untilThere(origin);
}, 300_000);
afterAll(() => beside.forEach((child) => child.kill()));

const browsers: [string, () => Promise<OtherBrowser>][] = [
  ['Firefox', firefox],
  ['WebKit', webkit],
];

describe.each(browsers)('%s', (name, open) => {
  let other: OtherBrowser;
  beforeAll(async () => {
    other = await open();
  }, 60_000);
  afterAll(async () => {
    await other?.close();
    expect(other?.errors).toEqual([]);
  });
  it('a student comes in, answers every kind of question, hands in', async () => {
    const questions = Object.values(samples);
    const rows: MailboxChange[] = [
      ...sittingRows(3).filter((row) => !('table' in row && row.table === 'papers')),
      { table: 'papers', row: withoutKeys({ ...paper, questions }) },
    ];
    const desk = browser(() => origin);
    await desk('POST', '/pair', { secret });
    expect((await desk('POST', '/desk/changes', { changes: rows })).status).toBe(200);
    const number = name === 'Firefox' ? 0 : 1;
    const [code, student] = [codeOf(number), `student${number}`];

    const page = await other.newPage();
    await page.goTo(`${origin}/sit`);
    await goIn(page, code);
    await page.press('button', 'Start');
    await page.there('navigation', 'Questions');
    await page.press('radio', /3\/12/);
    await page.press('checkbox', /range larger/);
    await page.press('radio', /True/);
    await page.type(/True course/, '118°');
    await page.type(/How far does she run/, '12.5 nm');
    await page.type('Gap 1', 'flood');
    await page.choose('Gap 2', 'ebb');
    for (const [light, colour] of [
      ['port', 'red'],
      ['starboard', 'green'],
      ['stern', 'white'],
    ] as const)
      await page.choose(light, colour);
    // Whichever stands first by chance can't go up.
    await page.press('button', /^Put .* earlier$/);
    await page.choose('red can', 'to port');
    await page.type(/Explain deviation/, 'What the ship’s own iron does – é');
    await page.press('button', 'in words');
    await page.type(/in words/, 'C = T + V + D');
    await page.press('button', 'Check before handing in');
    await page.press('button', /^Hand in/);
    await page.there('heading', 'Handed in');
    // What reached the desk is what was done here.
    const { attempts } = (await desk('GET', '/desk/news?after=0')).body as MailboxNews;
    const attempt = attempts.find(({ studentId, handedInAt }) => handedInAt && studentId === student);
    const said = Object.fromEntries(
      Object.entries(attempt?.answers ?? {}).map(([id, answer]) => [id, answer.response]),
    );
    const order = expect.arrayContaining(['p0', 'p1', 'p2', 'p3']) as string[];
    expect(said).toEqual({
      q1: { picked: ['b'] },
      q2: { picked: ['o0'] },
      q3: { text: '118°' },
      q4: { text: 'What the ship’s own iron does – é' },
      q5: { picked: ['true'] },
      q6: { text: '12.5 nm' },
      q7: { gaps: { g1: 'flood', g2: 'ge' } },
      q8: { pairs: { i0: 't0', i1: 't1', i2: 't2' } },
      q9: { order },
      q10: { pairs: { m0: 's0' } },
      q11: { words: 'C = T + V + D', maths: [], drawing: [], photos: [] },
    });
    await page.close();
  }, 180_000);

  it('the demo’s desk: its grid follows a student in another tab, and answers are marked by keys', async () => {
    const desk = await other.newPage();
    await desk.goTo(origin);
    await desk.there('heading', 'Quiz 2: collision rules');
    await desk.goTo(`${origin}/groups/group1`);
    await desk.there('row', /Nowak/);
    const row = await desk.ask<string>(`gribbetFind.role('row', ['Nowak', '']).innerText`);
    const code = /[2-9A-Z]{3} [2-9A-Z]{3}/.exec(row)?.[0] ?? '';
    await desk.goTo(`${origin}/sittings/rules/run`);
    await desk.there('button', '4 not started');
    await desk.there('button', '18 handed in');

    const student = await other.newPage();
    await student.goTo(`${origin}/sit`);
    await goIn(student, code);
    await student.type('Access code', 'flood');
    await student.press('button', 'Start');
    await student.press('radio', /^A/);
    await desk.there('button', '3 not started');
    await student.press('button', 'Check before handing in');
    await student.press('button', /^Hand in/);
    await student.there('heading', 'Handed in');
    await desk.there('button', '19 handed in');
    await student.close();

    await desk.goTo(`${origin}/sittings/tides/mark`);
    const left = () => desk.ask<string | undefined>(`/^\\d+ left$/m.exec(document.body.innerText)?.[0]`);
    const before = Number.parseInt(await until('how many are left', async () => (await left()) ?? null), 10);
    // Until piles are put forward answers stand in another order.
    await until('piles', () => desk.ask<true | null>(`/piles?, /.test(document.body.innerText) || null`));
    await desk.key('1', 'Enter', '2', 'Enter', '0', 'Enter');
    await until(`${before - 3} left`, async () => ((await left()) === `${before - 3} left` ? true : null));
    await desk.close();
  }, 180_000);
});

/** Comes in with a code, and reads what the paper begins with. */
async function goIn(page: Page, code: string): Promise<void> {
  await page.type('Your join code', code);
  await page.press('button', 'Continue');
  await page.press('button', 'Yes, this is me');
  await page.press('button', /Read the instructions/);
}
