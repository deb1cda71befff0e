import { expect, test, type Page } from '@playwright/test';
import { beginPaper, emptyDesk, giveOnDevices, goIn, kept, startPaper } from './steps';

/** Stands in for a disk without room: while it is full, the browser stores nothing more, and says why. */
async function disk(page: Page): Promise<(full: boolean) => Promise<void>> {
  await page.addInitScript(() => {
    for (const name of ['put', 'add'] as const) {
      const own = IDBObjectStore.prototype[name];
      IDBObjectStore.prototype[name] = function (this: IDBObjectStore, ...row: [unknown, IDBValidKey?]) {
        if (document.documentElement.dataset.disk === 'full')
          throw new DOMException(
            'The current transaction exceeded its quota limitations.',
            'QuotaExceededError',
          );
        return own.apply(this, row);
      };
    }
  });
  return (full) =>
    page.evaluate((value) => void (document.documentElement.dataset.disk = value), full ? 'full' : '');
}

test('marks for which there is no room wait on the page, are not called saved, and are saved once there is', async ({
  page,
}) => {
  const full = await disk(page);
  await page.goto('/sittings/tides/mark');
  const waits = page
    .getByRole('navigation', { name: /^Stages of/ })
    .getByRole('link', { name: /^Mark/ })
    .first();
  await expect(waits).toContainText('338 answers wait');
  const status = page.getByRole('status');
  // Piles bring an answer that five gave to the front; then one that one gave.
  await expect(status.filter({ hasText: /\d+ piles, \d+ left alone/ })).toBeVisible();
  await full(true);
  await page.keyboard.press('1');
  await expect(status.filter({ hasText: 'Not saved: this browser is out of space.' })).toBeVisible();
  await expect(page.getByText('not saved', { exact: true })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.press('2');
  await expect(status.filter({ hasText: 'The last 2 things you did wait on this page' })).toBeVisible();
  await expect(waits).toContainText('338 answers wait');
  await full(false);
  await expect(status.filter({ hasText: 'Space is free again: all 2 changes are saved' })).toBeVisible();
  await expect(waits).toContainText('332 answers wait');
  await page.reload();
  await expect(waits).toContainText('332 answers wait');
});

test('a title for which there is no room stays on the page and is kept once there is', async ({ page }) => {
  const full = await disk(page);
  await beginPaper(page, 'Room');
  const title = page.getByRole('textbox', { name: 'Title', exact: true });
  await full(true);
  await title.fill('Room for more');
  await expect(
    page.getByRole('status').filter({ hasText: 'Not saved: this browser is out of space' }),
  ).toBeVisible();
  await expect(title).toHaveValue('Room for more');
  await full(false);
  await kept(page, 'Title');
  await page.reload();
  await expect(title).toHaveValue('Room for more');
});

test('a student whose device is full writes on over the line, reads where the words are, and gets back in', async ({
  page,
  browser,
}) => {
  const code = await giveOnDevices(page, 'Full disk', null);
  const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const phone = await context.newPage();
  const full = await disk(phone);
  await phone.goto(`${emptyDesk}/sit`);
  await full(true);
  await goIn(phone, code);
  await startPaper(phone);
  const field = phone.getByRole('textbox').last();
  await field.fill('Kept on the other side');
  await expect(phone.getByText(/^saved \d/)).toBeVisible();
  await context.setOffline(true);
  await field.fill('On this page only');
  await expect(
    phone.getByText(/^Not saved: this device is full and there is no connection. Keep this page/),
  ).toBeVisible();
  await expect(field).toHaveValue('On this page only');
  await full(false);
  await expect(phone.getByText('saved on this device; no connection')).toBeVisible();
  await context.setOffline(false);
  await expect(phone.getByText(/^saved \d/)).toBeVisible();
  await phone.reload();
  await full(true);
  await goIn(phone, code);
  await startPaper(phone);
  await expect(phone.getByRole('textbox').last()).toHaveValue('On this page only');
  await context.close();
});
