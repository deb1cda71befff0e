import type { Page } from '@playwright/test';
import { bigDesk, manyQuestions } from './bigDesk';
import { launched, middle, putRows, row } from './measure';

/** One sitting of 10,000 students and 100 questions, all in: how long Mark takes to stand, and one mark from key to paint. */

const base = process.argv[2] ?? 'http://localhost:4390';
const students = Number(process.argv[3] ?? 10_000);

const browser = await launched('--enable-precise-memory-info');
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
  // tsx wraps named functions in a helper that the pages do not have.
  await context.addInitScript({ content: 'globalThis.__name = (value) => value;' });
  context.setDefaultTimeout(180_000);
  const page = await context.newPage();
  await page.goto(`${base}/`);
  await page.getByRole('heading', { name: 'On the desk' }).waitFor();
  await laidOut(page);
  const name = `${students.toLocaleString('en')} × 100`;
  let began = Date.now();
  await page.goto(`${base}/sittings/big/mark?question=q4-0`, { waitUntil: 'commit' });
  await page.locator('[data-row="0"]').waitFor();
  row(`Mark stands, ${name}: the first answers`, `${Date.now() - began} ms`);
  await page.getByText(/^Reading answers/).waitFor({ state: 'detached' });
  row(`all of it is there, ${name}`, `${Date.now() - began} ms`);
  // Near answers are looked for meanwhile, and stand in piles then: until that is over, rows move.
  await page.getByText(/left alone$/).waitFor();
  const { marks, blocked } = await marked(page);
  row(`one mark, ${name}: key to painted (median of ${marks.length})`, `${middle(marks).toFixed(0)} ms`);
  row('the slowest of 20', `${Math.max(...marks).toFixed(0)} ms`);
  const stretch = middle(blocked);
  row(
    'main thread kept busy by one mark, longest stretch (median)',
    // The browser tells only of stretches from 50 ms on (Long Tasks API).
    stretch === 0 ? 'under 50 ms' : `${stretch.toFixed(0)} ms`,
  );
  const used = () =>
    page.evaluate(
      () => (performance as unknown as { memory: { usedJSHeapSize: number } }).memory.usedJSHeapSize / 1e6,
    );
  const uncollected = await used();
  const inspector = await context.newCDPSession(page);
  await inspector.send('HeapProfiler.collectGarbage');
  row(
    `memory of the page, ${name}; before garbage was collected`,
    `${(await used()).toFixed(0)} MB; ${uncollected.toFixed(0)} MB`,
  );
  began = Date.now();
  await page.goto(`${base}/sittings/big/analyse`, { waitUntil: 'commit' });
  await page.getByRole('table').first().waitFor();
  row(`Analyse stands, ${name}`, `${Date.now() - began} ms`);
} finally {
  await browser.close();
}

/** Writes the sitting straight into the desk's database: as a file it would be larger than a desk may be. */
async function laidOut(page: Page): Promise<void> {
  const { attempts, students: register, ...rest } = bigDesk(students, manyQuestions(100));
  for (const table of ['groups', 'papers', 'paperVersions', 'sittings'] as const)
    await putRows(page, table, rest[table]);
  await putRows(page, 'students', register, 2_000);
  await putRows(page, 'attempts', attempts, 250);
}

/** From the key to the frame that shows the points, by the page's own clock; and the longest task in between. */
async function marked(page: Page): Promise<{ marks: number[]; blocked: number[] }> {
  await page.evaluate(() => {
    const times: number[] = [];
    const longest: number[] = [];
    let pressed = 0;
    let worst = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) worst = Math.max(worst, duration);
    }).observe({ entryTypes: ['longtask'] });
    document.addEventListener(
      'keydown',
      () => {
        pressed = performance.now();
        worst = 0;
      },
      true,
    );
    new MutationObserver(() => {
      if (!pressed) return;
      const from = pressed;
      pressed = 0;
      requestAnimationFrame(() =>
        setTimeout(() => {
          times.push(performance.now() - from);
          setTimeout(() => longest.push(worst), 50);
        }),
      );
    }).observe(document.querySelector('[data-row="0"]') ?? document.body, {
      subtree: true,
      childList: true,
      characterData: true,
      attributes: true,
    });
    Object.assign(window, { benchTimes: times, benchLongest: longest });
  });
  await page.locator('[data-row="0"]').focus();
  for (let count = 0; count < 20; count++) {
    // Two numbers by turns, so that each key changes what is shown.
    await page.keyboard.press(count % 2 ? '1' : '2');
    await page.waitForFunction(
      (seen) => (window as unknown as { benchLongest: number[] }).benchLongest.length > seen,
      count,
    );
    await page.waitForTimeout(1_700);
  }
  return page.evaluate(() => {
    const { benchTimes, benchLongest } = window as unknown as Record<string, number[]>;
    return { marks: benchTimes ?? [], blocked: benchLongest ?? [] };
  });
}
