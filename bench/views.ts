import type { Page } from '@playwright/test';
import { contentOf } from '@/core/formats/backup';
import { backupBytes } from '../tests/unit/savedDesk';
import { bigDesk } from './bigDesk';
import { launched, middle, row } from './measure';

/** How long views take to stand, in a real browser: on the demo course and at 550 attempts × 50 questions. */

/** What shows that a view stands. */
const stands: Record<string, string> = {
  Run: '[aria-label="Students and their answers"] tbody tr th',
  Mark: '[data-row="0"]',
  Analyse: 'table tbody tr td',
};

/**
 * Runs in the page: notes when what the address asks for is drawn, in ms from the start of the navigation
 * by the page's own clock, so that no time is counted that Playwright takes to look.
 * Text, because tsx wraps named functions in a helper that the page does not have.
 */
const noteWhenItStands = `
  const selector = new URLSearchParams(location.search).get('stands');
  const look = () =>
    document.querySelector(selector) ? (window.stoodAt = performance.now()) : requestAnimationFrame(look);
  if (selector) requestAnimationFrame(look);
`;

const base = process.argv[2] ?? 'http://localhost:4390';

const browser = await launched();
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.addInitScript({ content: noteWhenItStands });
  await page.goto(`${base}/`);
  await page.getByRole('heading', { name: 'Quiz 2: collision rules' }).waitFor();
  const emptiest = middle(await standing(page, '/outbox', 'main h1'));
  row('the emptiest view of the desk stands: the outbox', `${emptiest.toFixed(0)} ms`);
  await views(page, 'demo', { Run: 'rules', Mark: 'tides', Analyse: 'lights' }, emptiest);
  await next(page, 'demo', 'tides');

  await page.goto(`${base}/backup`);
  const buffer = Buffer.from(await backupBytes(contentOf(bigDesk()), '2026-11-01T10:00:00.000Z'));
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'big.zip', mimeType: 'application/zip', buffer });
  await page.getByRole('button', { name: 'Replace permanently' }).click();
  await page.getByText(/is restored$/).waitFor({ timeout: 60_000 });
  await writing(page);
  await views(page, '550 × 50', { Run: 'big', Mark: 'big', Analyse: 'big' });
  await next(page, '550 × 50', 'big');
} finally {
  await browser.close();
}

/** @param emptiest ms of the emptiest view in this run, to hold against */
async function views(
  page: Page,
  desk: string,
  sittings: Record<string, string>,
  emptiest?: number,
): Promise<void> {
  for (const [stage, id] of Object.entries(sittings)) {
    const path = `/sittings/${id}/${stage.toLowerCase()}`;
    const time = middle(await standing(page, path, stands[stage] ?? 'main'));
    const beside =
      emptiest && `, ${(time / emptiest).toFixed(2)} ×, ${await scriptOf(path)} of script as sent`;
    row(`${stage} stands, ${desk}`, `${time.toFixed(0)} ms${beside ?? ''}`);
  }
}

/** Five times from the start of the navigation until something stands, in ms. */
async function standing(page: Page, path: string, selector: string): Promise<number[]> {
  const times: number[] = [];
  for (let run = 0; run < 5; run++) {
    await page.goto(`${base}${path}?stands=${encodeURIComponent(selector)}`, { waitUntil: 'commit' });
    await page.waitForFunction(() => 'stoodAt' in window);
    times.push(await page.evaluate(() => (window as unknown as { stoodAt: number }).stoodAt));
  }
  return times;
}

/** What a browser that has nothing of it yet is sent of script until a view stands, in KB. */
async function scriptOf(path: string): Promise<string> {
  const context = await browser.newContext();
  const page = await context.newPage();
  await page.goto(`${base}${path}`);
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  const bytes = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => name.endsWith('.js'))
      .reduce((sum, entry) => sum + (entry as PerformanceResourceTiming).encodedBodySize, 0),
  );
  await context.close();
  return `${(bytes / 1000).toFixed(0)} KB`;
}

/** A paper of 200 questions: how long it takes to stand, and from a key to the letter on the page. */
async function writing(page: Page): Promise<void> {
  const times = await standing(page, '/papers/long', '[class*="closed"]');
  row('Write stands, 200 questions', `${middle(times).toFixed(0)} ms`);
  await page.getByRole('button', { name: 'Open question 100:' }).click();
  const field = page.getByRole('textbox', { name: 'Text of question 100' });
  await field.click();
  await page.evaluate(() => {
    const typed: number[] = [];
    let pressed = 0;
    document.addEventListener('keydown', () => (pressed = performance.now()), true);
    document.addEventListener('input', () =>
      // After the frame that shows it.
      requestAnimationFrame(() => setTimeout(() => typed.push(performance.now() - pressed))),
    );
    Object.assign(window, { typed });
  });
  for (let count = 0; count < 40; count++) {
    await page.keyboard.press('x');
    await page.waitForTimeout(60);
  }
  const typed = await page.evaluate(() => (window as unknown as { typed: number[] }).typed);
  row(
    `a letter typed in a paper of 200 questions (median of ${typed.length})`,
    `${middle(typed).toFixed(0)} ms`,
  );
  row('the slowest of them', `${Math.max(...typed).toFixed(0)} ms`);
}

/** From the key to the next answer having the focus, by the page's own clock, a mark being kept each time. */
async function next(page: Page, desk: string, id: string): Promise<void> {
  await page.goto(`${base}/sittings/${id}/mark`);
  await page.locator('[data-row="0"]').waitFor();
  await page.waitForTimeout(500);
  await page.evaluate(() => {
    const times: number[] = [];
    let pressed = 0;
    document.addEventListener(
      'keydown',
      (event) => event.key === 'Enter' && (pressed = performance.now()),
      true,
    );
    document.addEventListener('focusin', () => {
      if (pressed) times.push(performance.now() - pressed);
      pressed = 0;
    });
    Object.assign(window, { benchTimes: times });
  });
  for (let count = 0; count < 25; count++) {
    await page.keyboard.press('1');
    await page.keyboard.press('Enter');
    await page.waitForTimeout(120);
  }
  const times = await page.evaluate(() => (window as unknown as { benchTimes: number[] }).benchTimes);
  row(`next answer to mark, ${desk} (median of ${times.length})`, `${middle(times).toFixed(0)} ms`);
}
