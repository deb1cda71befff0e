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

const one = { key: '1', code: 'Digit1', text: '1', windowsVirtualKeyCode: 49 };
const enter = { key: 'Enter', code: 'Enter', text: '\r', windowsVirtualKeyCode: 13 };

/** So often is each view loaded. */
const loads = 9;
/** What goes on in a page that was left ends meanwhile. */
const restMs = 300;
/** So many answers are gone through. */
const answers = 100;
/** 20 keys a second, as fast as no hand is. */
const keyEveryMs = 50;
const base = process.argv[2] ?? 'http://localhost:4390';

const browser = await launched();
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.addInitScript({ content: noteWhenItStands });
  await page.goto(`${base}/`);
  await page.getByRole('heading', { name: 'Quiz 2: collision rules' }).waitFor();
  await besideTheEmptiest(page, { Run: 'rules', Mark: 'tides', Analyse: 'lights' });
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

/** The demo course's views, each in turns with the emptiest view of the desk: the outbox. */
async function besideTheEmptiest(page: Page, sittings: Record<string, string>): Promise<void> {
  for (const [stage, id] of Object.entries(sittings)) {
    const path = `/sittings/${id}/${stage.toLowerCase()}`;
    const empty: number[] = [];
    const full: number[] = [];
    for (let load = 0; load < loads; load++) {
      empty.push(await stood(page, '/outbox', 'main h1'));
      full.push(await stood(page, path, stands[stage] ?? 'main'));
    }
    const [beside, time] = [middle(empty), middle(full)];
    row(
      `${stage} stands, demo; in turns with it the emptiest view, the outbox`,
      `${time.toFixed(0)} ms; ${beside.toFixed(0)} ms: ${(time / beside).toFixed(2)} ×, ${await scriptOf(path)} of script as sent`,
    );
  }
}

async function views(page: Page, desk: string, sittings: Record<string, string>): Promise<void> {
  for (const [stage, id] of Object.entries(sittings)) {
    const path = `/sittings/${id}/${stage.toLowerCase()}`;
    row(
      `${stage} stands, ${desk}`,
      `${middle(await standing(page, path, stands[stage] ?? 'main')).toFixed(0)} ms`,
    );
  }
}

/** So many times from the start of the navigation until something stands, in ms. */
async function standing(page: Page, path: string, selector: string): Promise<number[]> {
  const times: number[] = [];
  for (let load = 0; load < loads; load++) times.push(await stood(page, path, selector));
  return times;
}

/**
 * From the start of the navigation until something stands, in ms. What the page before still did in its workers is over by then:
 * each begins from an empty page, after a rest.
 */
async function stood(page: Page, path: string, selector: string): Promise<number> {
  await page.goto('about:blank');
  await page.waitForTimeout(restMs);
  await page.goto(`${base}${path}?stands=${encodeURIComponent(selector)}`, { waitUntil: 'commit' });
  await page.waitForFunction(() => 'stoodAt' in window);
  return page.evaluate(() => (window as unknown as { stoodAt: number }).stoodAt);
}

/** What a browser that has the demo course, and nothing of the view yet, is sent of script until it stands, in KB. */
async function scriptOf(path: string): Promise<string> {
  const context = await browser.newContext({ serviceWorkers: 'block' });
  const page = await context.newPage();
  await page.goto(`${base}/`);
  await page.getByRole('heading', { name: 'Quiz 2: collision rules' }).waitFor();
  const keys = await context.newCDPSession(page);
  await keys.send('Network.setCacheDisabled', { cacheDisabled: true });
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

/**
 * A point and the next answer, over and over, 20 keys a second: from the key to the frame that shows the next answer with the
 * focus, by the page's own clock. No key waits for what the one before it did. Every point given is looked for in the database.
 */
async function next(page: Page, desk: string, id: string): Promise<void> {
  await page.goto(`${base}/sittings/${id}/mark`);
  await page.locator('[data-row="0"]').waitFor();
  // Near answers are looked for meanwhile, and stand in piles then.
  await page.getByText(/left alone$/).waitFor();
  await page.evaluate(() => {
    const times: number[] = [];
    const pressed: number[] = [];
    document.addEventListener(
      'keydown',
      (event) => event.key === 'Enter' && pressed.push(event.timeStamp),
      true,
    );
    document.addEventListener('focusin', () => {
      // Two keys may come before one frame.
      const shown = pressed.splice(0);
      requestAnimationFrame(() => {
        // Before all else that waits: what comes after the frame is none of it.
        void (window as unknown as Began).scheduler.postTask(
          () => times.push(...shown.map((from) => performance.now() - from)),
          { priority: 'user-blocking' },
        );
      });
    });
    // What the browser itself says (Event Timing, W3C): until the frame is on the screen, in steps of 8 ms; none under 16.
    const presented: number[] = [];
    new PerformanceObserver((list) => {
      for (const { name, duration } of list.getEntries()) if (name === 'keydown') presented.push(duration);
    }).observe({ type: 'event', durationThreshold: 16 } as PerformanceObserverInit);
    Object.assign(window, {
      ...{ benchTimes: times, benchPresented: presented, benchBegan: new Date().toISOString() },
    });
  });
  const keys = await page.context().newCDPSession(page);
  const sent: Promise<unknown>[] = [];
  const began = performance.now();
  for (let count = 0; count < 2 * answers; count++) {
    const key = count % 2 ? enter : one;
    sent.push(keys.send('Input.dispatchKeyEvent', { type: 'keyDown', ...key }));
    sent.push(keys.send('Input.dispatchKeyEvent', { type: 'keyUp', ...key, text: '' }));
    const due = began + (count + 1) * keyEveryMs;
    await new Promise((resolve) => setTimeout(resolve, due - performance.now()));
  }
  await Promise.all(sent);
  // The last of them are written.
  await page.waitForTimeout(2_000);
  const { times, presented, written } = await page.evaluate(
    () =>
      new Promise<{ times: number[]; presented: number[]; written: number }>((resolve) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onsuccess = () => {
          const log = opening.result.transaction('log').objectStore('log').getAll();
          log.onsuccess = () => {
            const { benchTimes: all, benchPresented: shown, benchBegan: from } = window as unknown as Began;
            const acts = (log.result as { at: string; command: string }[]).filter(
              ({ at, command }) => at >= from && command.startsWith('markAnswers'),
            );
            resolve({ times: all, presented: shown, written: acts.length });
          };
        };
      }),
  );
  row(
    `next answer to mark, ${desk}, 20 keys a second, until painted: median, 95 in 100, longest of ${times.length}`,
    figures(times),
  );
  row(
    `the same until it is on the screen, all ${presented.length} keys, drawn without a GPU`,
    figures(presented),
  );
  row(`points given meanwhile, and not written`, `${answers}, ${answers - written}`);
}

function figures(times: readonly number[]): string {
  const ranked = [...times].sort((a, b) => a - b);
  const p95 = ranked[Math.floor(ranked.length * 0.95)] ?? Number.NaN;
  return `${middle(times).toFixed(0)}, ${p95.toFixed(0)}, ${Math.max(...times).toFixed(0)} ms`;
}

interface Began {
  scheduler: { postTask: (task: () => void, how: { priority: string }) => Promise<void> };
  benchTimes: number[];
  benchPresented: number[];
  benchBegan: string;
}
