import { expect, test, type Page } from '@playwright/test';
import { beginPaper, teacherSecret } from './steps';

/** The browser makes its database anew, as some do when the disk was full. */
async function loseDesk(page: Page): Promise<void> {
  await page.goto('/icon.svg');
  await page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const gone = indexedDB.deleteDatabase('gribbet-desk');
        gone.onsuccess = resolve;
        gone.onerror = reject;
      }),
  );
}

/** Stands in for the dialog in which a folder is chosen: a folder of the browser's own, as real as any to the page. */
async function withFolder(page: Page): Promise<void> {
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('Copies of the desk', { create: true }),
    });
  });
}

const gone = { name: 'Your desk is no longer in this browser' };
const stagesOf = (page: Page) => page.getByRole('navigation', { name: /^Stages of/ });

test('a desk that is gone is said before anything is written, and a backup puts it back', async ({
  page,
}) => {
  await page.goto('/backup');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a backup' }).click();
  const path = await (await saved).path();
  await loseDesk(page);
  await page.goto('/');
  await expect(page.getByRole('heading', gone)).toBeVisible();
  await expect(stagesOf(page)).toHaveCount(0);
  await page.locator('input[type="file"]').setInputFiles(path);
  await expect(stagesOf(page).first()).toBeVisible();
});

test('copies keep themselves in a folder; a desk that is gone comes back by one button', async ({ page }) => {
  await withFolder(page);
  await page.goto('/');
  await expect(page.getByText('No automatic backups yet.')).toBeVisible();
  await page.getByRole('link', { name: 'Backups' }).click();
  await page.getByRole('button', { name: 'Choose a backup folder' }).click();
  const place = page.getByText(/^In the folder Copies of the desk: last backup/);
  await expect(place).toContainText('less than a minute ago');

  // A paper more; by itself it is in a copy two minutes later: here those two minutes are over already.
  await page.goto('/');
  await page.getByLabel('Title of the new paper').fill('Written after the first copy');
  await page.getByRole('button', { name: 'Start writing' }).click();
  await page.waitForURL('**/papers/*');
  await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue(
    'Written after the first copy',
  );
  await expect.poll(() => ofPlace(page, 'folder', 'changedSince')).not.toBeNull();
  await waitedLong(page);
  await page.goto('/backup');
  const copies = page.getByRole('list', { name: 'Copies to restore' }).getByRole('listitem');
  // Copies rest several times as long as the one before took: on a slow machine that is long.
  await expect(copies).toHaveCount(2, { timeout: 100_000 });
  await expect(place).toContainText('nothing has changed since');
  await page.goto('/');
  await expect(
    page.getByText(/^Last copy less than a minute ago, in the folder Copies of the desk/),
  ).toBeVisible();

  await loseDesk(page);
  await page.goto('/');
  await expect(page.getByRole('heading', gone)).toBeVisible();
  await page
    .getByRole('button', { name: /^Restore this copy/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Written after the first copy' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();
});

test('copies lie sealed on the server that the desk is paired with, and come back from there', async ({
  page,
}) => {
  await page.goto('/sittings/rules/devices');
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: /^Pair/ }).click();
  await expect(page.getByText(/^Connected, last heard/)).toBeVisible();
  await page.goto('/backup');
  await expect(page.getByText(/^On the classroom server, sealed/)).toContainText(
    'last backup less than a minute ago',
    {
      timeout: 40_000,
    },
  );
  await loseDesk(page);
  await page.goto('/');
  await expect(page.getByRole('heading', gone)).toBeVisible();
  await page
    .getByRole('button', { name: /^Restore this copy/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();
  // It is paired again, so that what students handed over meanwhile comes to it.
  await page.goto('/sittings/rules/devices');
  await expect(page.getByText(/^Connected, last heard/)).toBeVisible();

  // The secret goes with the pairing, from where copies are made too; that is no fault of the desk's.
  await page.getByRole('button', { name: 'End pairing' }).click();
  await expect.poll(() => ofPlace(page, 'server', 'secret'), { timeout: 40_000 }).toBe('');
  await page.goto('/');
  await expect(page.getByText(/^Last copy/)).toBeVisible();
  await expect(page.getByText('gets no backups')).toHaveCount(0);
});

/** What is known of a place of copies, read past the app. */
const ofPlace = (page: Page, key: 'folder' | 'server', field: 'changedSince' | 'secret') =>
  page.evaluate(
    async ([wanted, name]) => {
      const opening = indexedDB.open('gribbet-copies');
      const db = await new Promise<IDBDatabase>(
        (resolve) => (opening.onsuccess = () => resolve(opening.result)),
      );
      const reading = db.transaction('places').objectStore('places').get(wanted);
      await new Promise((resolve) => (reading.onsuccess = resolve));
      db.close();
      return (reading.result as Record<string, string | null>)[name] ?? null;
    },
    [key, field] as const,
  );

/** As if the desk had changed an hour ago. */
const waitedLong = (page: Page) =>
  page.evaluate(async () => {
    const opening = indexedDB.open('gribbet-copies');
    const db = await new Promise<IDBDatabase>(
      (resolve) => (opening.onsuccess = () => resolve(opening.result)),
    );
    const places = db.transaction('places', 'readwrite').objectStore('places');
    const reading = places.get('folder');
    await new Promise((resolve) => (reading.onsuccess = resolve));
    const anHourAgo = new Date(Date.now() - 3_600_000).toISOString();
    const writing = places.put({ ...reading.result, changedSince: anHourAgo });
    await new Promise((resolve) => (writing.onsuccess = resolve));
    db.close();
  });

test('two tabs of one paper: each keeps what the other changed', async ({ context }) => {
  const first = await context.newPage();
  await beginPaper(first, 'Two tabs');
  const second = await context.newPage();
  await second.goto(first.url());
  await expect(second.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue('Two tabs');
  // A title in one, a question in the other, at the same time.
  await Promise.all([
    first.getByRole('textbox', { name: 'Title', exact: true }).fill('Two tabs, the first'),
    second.getByRole('group', { name: 'New question' }).getByRole('button', { name: 'Short text' }).click(),
  ]);
  await second.getByLabel('Text of question 1').fill('From the second tab?');
  await expect(first.getByText('From the second tab?')).toBeVisible();
  for (const page of [first, second]) {
    await page.reload();
    await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue(
      'Two tabs, the first',
    );
    await expect(page.getByText('From the second tab?')).toBeVisible();
  }
});

test('typing on and on is kept all the while', async ({ page }) => {
  await beginPaper(page, 'On and on');
  const title = page.getByRole('textbox', { name: 'Title', exact: true });
  await title.fill('');
  // A key every tenth of a second, without a rest: some of it is stored while the rest is still to be typed.
  const words = 'A title that somebody types on and on and on '.repeat(3);
  const typing = title.pressSequentially(words, { delay: 100 });
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
  await expect.poll(stored, { intervals: [250] }).toBeGreaterThan(12);
  expect((await title.inputValue()).length).toBeLessThan(words.length);
  await typing;
});
