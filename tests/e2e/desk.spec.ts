import { expect, test } from '@playwright/test';
import { beginPaper } from './steps';

test('a desk that is gone is said before anything is written, and a backup puts it back', async ({
  page,
}) => {
  await page.goto('/backup');
  const saved = page.waitForEvent('download');
  await page
    .getByRole('button', { name: /^Save the whole desk|^Save/ })
    .first()
    .click();
  const path = await (await saved).path();
  // The browser makes its database anew, as some do when the disk was full.
  await page.goto('/icon.svg');
  await page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const gone = indexedDB.deleteDatabase('gribbet-desk');
        gone.onsuccess = resolve;
        gone.onerror = reject;
      }),
  );
  await page.goto('/');
  await expect(
    page.getByRole('heading', { name: 'Your desk is not in this browser any more' }),
  ).toBeVisible();
  await expect(page.getByRole('navigation', { name: /^Stages of/ })).toHaveCount(0);
  await page.locator('input[type="file"]').setInputFiles(path);
  await expect(page.getByRole('navigation', { name: /^Stages of/ }).first()).toBeVisible();
});

test('two tabs of one paper: each keeps what the other changed', async ({ context }) => {
  const first = await context.newPage();
  await beginPaper(first, 'Two tabs');
  const second = await context.newPage();
  await second.goto(first.url());
  await expect(second.getByRole('textbox', { name: 'Title' })).toHaveValue('Two tabs');
  // A title in one, a question in the other, at the same time.
  await Promise.all([
    first.getByRole('textbox', { name: 'Title' }).fill('Two tabs, the first'),
    second.getByRole('group', { name: 'New question' }).getByRole('button', { name: 'Short text' }).click(),
  ]);
  await second.getByLabel('Text of question 1').fill('From the second tab?');
  await expect(first.getByText('From the second tab?')).toBeVisible();
  for (const page of [first, second]) {
    await page.reload();
    await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Two tabs, the first');
    await expect(page.getByText('From the second tab?')).toBeVisible();
  }
});

test('typing on and on is kept all the while', async ({ page }) => {
  await beginPaper(page, 'On and on');
  const title = page.getByRole('textbox', { name: 'Title' });
  await title.fill('');
  // A key every tenth of a second, without a rest: what is stored follows at most half a second behind.
  const typing = title.pressSequentially(
    'A title that somebody types without ever stopping to think about it',
    {
      delay: 100,
    },
  );
  const stored = () =>
    page.evaluate(async () => {
      const opening = indexedDB.open('gribbet-desk');
      const db = await new Promise<IDBDatabase>(
        (resolve) => (opening.onsuccess = () => resolve(opening.result)),
      );
      const papers = db.transaction('papers').objectStore('papers').getAll();
      const rows = await new Promise<{ title: string }[]>(
        (resolve) => (papers.onsuccess = () => resolve(papers.result)),
      );
      db.close();
      return Math.max(0, ...rows.map((row) => row.title.length));
    });
  await expect.poll(stored, { timeout: 4_000 }).toBeGreaterThan(12);
  expect((await title.inputValue()).length).toBeLessThan(60);
  await typing;
});
