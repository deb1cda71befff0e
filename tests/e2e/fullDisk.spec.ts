import { expect, test, type Page } from '@playwright/test';
import { beginPaper, enterAs, kept, startPaper } from './steps';

/** A disk without room for this origin, as the browser sees it; and room again. */
async function disk(page: Page): Promise<{ full: () => Promise<void>; roomy: () => Promise<void> }> {
  const session = await page.context().newCDPSession(page);
  const origin = new URL(page.url()).origin;
  return {
    full: async () => void (await session.send('Storage.overrideQuotaForOrigin', { origin, quotaSize: 1 })),
    roomy: async () => void (await session.send('Storage.overrideQuotaForOrigin', { origin })),
  };
}

test('marks for which there is no room wait on the page, are not called saved, and are saved once there is', async ({
  page,
}) => {
  await page.goto('/sittings/tides/mark');
  const waits = page
    .getByRole('navigation', { name: /^Stages of/ })
    .getByRole('link', { name: /^Mark/ })
    .first();
  await expect(waits).toContainText('276 answers wait');
  const { full, roomy } = await disk(page);
  await full();
  const status = page.getByRole('status');
  await page.keyboard.press('1');
  await expect(status.filter({ hasText: 'Not saved: there is no room left in this browser.' })).toBeVisible();
  await expect(page.getByText('not saved', { exact: true })).toBeVisible();
  await page.keyboard.press('Enter');
  await page.keyboard.press('2');
  await expect(status.filter({ hasText: 'The last 2 things you did wait on this page' })).toBeVisible();
  await expect(waits).toContainText('276 answers wait');
  await roomy();
  await expect(status.filter({ hasText: 'There is room again: all 2 are saved' })).toBeVisible();
  await expect(waits).toContainText('274 answers wait');
  await page.reload();
  await expect(waits).toContainText('274 answers wait');
});

test('a title for which there is no room stays on the page and is kept once there is', async ({ page }) => {
  await beginPaper(page, 'Room');
  const title = page.getByRole('textbox', { name: 'Title' });
  const { full, roomy } = await disk(page);
  await full();
  await title.fill('Room for more');
  await expect(page.getByRole('status').filter({ hasText: 'Not saved: there is no room' })).toBeVisible();
  await expect(title).toHaveValue('Room for more');
  await roomy();
  await kept(page, 'Title');
  await page.reload();
  await expect(title).toHaveValue('Room for more');
});

test('a student whose device is full writes on over the line, reads where the words are, and gets back in', async ({
  page,
  browser,
}) => {
  await page.goto('/sittings/rules/devices');
  await page.getByLabel('The teacher’s secret').fill('tide tables 2026 for tests');
  await page.getByRole('button', { name: 'Pair this browser' }).click();
  await page.getByRole('button', { name: 'Let them in on their own devices' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'In reach' })).toBeVisible();
  await page.goto('/groups/group1');
  const code =
    (await page
      .getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/)
      .last()
      .textContent()) ?? '';

  const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const base = new URL(page.url()).origin;
  const phone = await enterAs(context, code, base);
  const { full, roomy } = await disk(phone);
  await full();
  await startPaper(phone, 'flood');
  const field = phone.getByRole('textbox').last();
  await field.fill('Kept on the other side');
  await expect(phone.getByText(/^kept \d/)).toBeVisible();
  await context.setOffline(true);
  await field.fill('On this page only');
  await expect(
    phone.getByText(/^Not kept: this device has no room and there is no connection/),
  ).toBeVisible();
  await expect(field).toHaveValue('On this page only');
  await roomy();
  await expect(phone.getByText('kept on this device; no connection')).toBeVisible();
  await full();
  await context.setOffline(false);
  await expect(phone.getByText(/^kept \d/)).toBeVisible();
  await phone.close();

  const again = await enterAs(context, code, base);
  await startPaper(again);
  await expect(again.getByRole('textbox').last()).toHaveValue('On this page only');
  await context.close();
});
