import { chromium, type Browser, type Locator, type Page } from '@playwright/test';

/** The median time of `runs` runs, in ms. */
export async function median(runs: number, work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let run = 0; run < runs; run++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return middle(times);
}

export function middle(times: readonly number[]): number {
  return [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? Number.NaN;
}

/** One row of the table that docs/benchmarks.md holds. */
export function row(what: string, figure: string): void {
  console.log(`| ${what} | ${figure} |`);
}

/** Chromium as the benches drive it. */
export const launched = (...more: string[]): Promise<Browser> =>
  chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      ...more,
    ],
  });

/**
 * Presses a button; ms until words stand on the page, by the page's own clock: looking for them from outside would take a
 * processor's time from what is measured.
 */
export async function pressedUntil(button: Locator, words: string): Promise<number> {
  return button.evaluate(
    (element, said) =>
      new Promise<number>((resolve) => {
        const began = performance.now();
        const watch = new MutationObserver((changes) => {
          for (const { addedNodes, target } of changes)
            for (const node of [target, ...addedNodes])
              if (node.textContent?.includes(said) && node !== document.body)
                requestAnimationFrame(() => (watch.disconnect(), resolve(performance.now() - began)));
        });
        watch.observe(document.body, { childList: true, subtree: true, characterData: true });
        (element as HTMLElement).click();
      }),
    words,
  );
}

/**
 * Runs in the page from its beginning: `window.paintedAt` is when what the selector names was painted first, and
 * `window.pressedAt` when the last press or key began, both in ms from the start of the navigation by the page's own clock.
 * The first task after a frame is the one that comes before all that waits. Text, because tsx wraps named functions in a helper
 * that the page does not have.
 */
export const notePainted = (selector: string) => `
  addEventListener('pointerdown', (event) => (window.pressedAt = event.timeStamp), true);
  new MutationObserver((_, watch) => {
    if (!document.querySelector(${JSON.stringify(selector)})) return;
    watch.disconnect();
    requestAnimationFrame(() => {
      scheduler.postTask(() => (window.paintedAt = performance.now()), { priority: 'user-blocking' });
    });
  }).observe(document, { childList: true, subtree: true });
`;

/** From the beginning, or from the last press, until what `notePainted` waits for was painted, in ms. */
export async function untilPainted(page: Page, from: 'beginning' | 'press'): Promise<number> {
  await page.waitForFunction(() => 'paintedAt' in window);
  const { paintedAt, pressedAt } = await page.evaluate(() => {
    const noted = window as unknown as { paintedAt: number; pressedAt: number };
    return { paintedAt: noted.paintedAt, pressedAt: noted.pressedAt };
  });
  return paintedAt - (from === 'press' ? pressedAt : 0);
}

/**
 * Writes rows straight into the desk's database of a page.
 *
 * @param atOnce so many are handed to the page together
 */
export async function putRows(
  page: Page,
  table: string,
  rows: readonly unknown[],
  atOnce = 5_000,
): Promise<void> {
  for (let from = 0; from < rows.length; from += atOnce)
    await page.evaluate(
      ({ table: name, rows: all }) =>
        new Promise<void>((resolve, reject) => {
          const opening = indexedDB.open('gribbet-desk');
          opening.onerror = () => reject(opening.error ?? new Error('not opened'));
          opening.onsuccess = () => {
            const change = opening.result.transaction(name, 'readwrite');
            for (const each of all) change.objectStore(name).put(each);
            change.oncomplete = () => (opening.result.close(), resolve());
            change.onabort = () => reject(change.error ?? new Error('not put'));
          };
        }),
      { table, rows: rows.slice(from, from + atOnce) as unknown[] },
    );
}
