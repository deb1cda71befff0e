import { expect, test, type Page } from '@playwright/test';
import { emptyDesk, enterAs, giveOnDevices, handIn, kept, startPaper } from './steps';

const first = (page: Page) => page.getByRole('textbox', { name: /first light/ });
const second = (page: Page) => page.getByRole('textbox', { name: /second light/ });

test('typed before the end on a broken line: kept on the device, kept apart, let count by the teacher, read by the student', async ({
  page,
  browser,
}) => {
  test.setTimeout(300_000);
  const code = await giveOnDevices(page, 'Broken line', 1);
  const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const phone = await enterAs(context, code);
  await startPaper(phone);
  const begun = Date.now();
  await first(phone).fill('Flashing, one every five seconds.');
  await expect(phone.getByText(/^saved \d/)).toBeVisible();
  await context.setOffline(true);
  await second(phone).fill('Fixed, typed while the line was broken.');
  await expect(phone.getByText('saved on this device; no connection')).toBeVisible();

  await test.step('offline at the end, the page says so and takes no more typing', async () => {
    await expect(phone.getByRole('heading', { name: 'Time is up' })).toBeVisible({ timeout: 90_000 });
    await expect(phone.getByText('1 answer on this device couldn’t be sent yet')).toBeVisible();
    await expect(phone.getByRole('textbox')).toHaveCount(0);
  });
  // The line comes back only when the seconds of grace are over, too.
  await expect.poll(() => Date.now() - begun, { timeout: 60_000 }).toBeGreaterThan(75_000);
  await context.setOffline(false);

  await test.step('the receipt counts what came in time, and says what became of the rest', async () => {
    await expect(phone.getByText('1 answer arrived after the end and is kept.')).toBeVisible({
      timeout: 30_000,
    });
    await expect(phone.getByText('1 of 2 questions')).toBeVisible();
  });

  await test.step('the teacher sees it with its time, and lets it count', async () => {
    await expect(
      page.getByText('1 answer of 1 student arrived after the end, all typed before it'),
    ).toBeVisible({
      timeout: 30_000,
    });
    await page
      .getByRole('rowheader', { name: /Haddad/ })
      .getByRole('button')
      .click();
    await expect(
      page.getByText('1 answer arrived after the end; typed before it, by the device’s clock.'),
    ).toBeVisible();
    await expect(page.getByText('Fixed, typed while the line was broken.')).toBeVisible();
    await page.getByRole('group', { name: 'Question 2' }).getByRole('button', { name: 'Accept' }).click();
    await page.getByRole('form', { name: 'Accept' }).getByRole('button', { name: 'Accept' }).click();
    await kept(page, '1 late answer counts');
    await expect(phone.getByText('1 answer arrived after the end and counts.')).toBeVisible({
      timeout: 30_000,
    });
    await expect(phone.getByText('2 of 2 questions')).toBeVisible();
  });

  await test.step('it is in the course of the attempt, and on the list of papers', async () => {
    await page.getByRole('link', { name: 'Timeline of the attempt' }).click();
    await expect(page.getByText('late answer accepted: 2 (The connection broke)')).toBeVisible();
    await expect(page.getByRole('cell', { name: /Fixed, typed while the line was broken/ })).toBeVisible();
    await phone.getByRole('button', { name: 'Go to your papers' }).click();
    await expect(phone.getByText('1 answer arrived after the end and counts.')).toBeVisible();
  });
  await context.close();
});

test('an old device never replaces newer words; both say so, the student chooses, the teacher can read all', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const code = await giveOnDevices(page, 'Two devices', null);
  const pocket = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const phone = await enterAs(pocket, code);
  await startPaper(phone);
  await first(phone).fill('Both began with this.');
  await expect(phone.getByText(/^saved \d/)).toBeVisible();
  await pocket.setOffline(true);
  await first(phone).fill('STALE, typed on the phone.');
  await second(phone).fill('Only on the phone.');
  await expect(phone.getByText('saved on this device; no connection')).toBeVisible();

  const bag = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const laptop = await enterAs(bag, code);
  await startPaper(laptop);
  await expect(first(laptop)).toHaveValue('Both began with this.');
  await first(laptop).fill('NEWER, typed on the laptop.');
  await expect(laptop.getByText(/^saved \d/)).toBeVisible();

  await test.step('the phone comes back untouched', async () => {
    await pocket.setOffline(false);
    await expect(phone.getByRole('heading', { name: 'Your paper is open in another tab' })).toBeVisible({
      timeout: 30_000,
    });
    await expect(phone.getByText('1 question has a newer answer from there.')).toBeVisible();
  });

  await test.step('the laptop keeps its words and shows the others', async () => {
    const choice = laptop.getByRole('group', { name: 'Another answer you gave' });
    await expect(choice).toContainText('STALE, typed on the phone.', { timeout: 30_000 });
    await expect(first(laptop)).toHaveValue('NEWER, typed on the laptop.');
  });

  await test.step('gone on with on the phone, it begins with what is newest', async () => {
    await phone.getByRole('button', { name: 'Continue here instead' }).click();
    await expect(first(phone)).toHaveValue('NEWER, typed on the laptop.');
    await expect(second(phone)).toHaveValue('Only on the phone.');
    await expect(laptop.getByRole('heading', { name: 'Your paper is open in another tab' })).toBeVisible({
      timeout: 30_000,
    });
    const choice = phone.getByRole('group', { name: 'Another answer you gave' });
    await choice.getByRole('button', { name: 'Use this one instead' }).click();
    await expect(first(phone)).toHaveValue('STALE, typed on the phone.');
    await expect(choice).toBeHidden();
    await handIn(phone);
  });

  await test.step('the teacher reads what counts, and what does not', async () => {
    await page
      .getByRole('rowheader', { name: /Haddad/ })
      .getByRole('button')
      .click();
    await page.getByRole('link', { name: 'Timeline of the attempt' }).click();
    const row = page.getByRole('row', { name: /STALE/ });
    await row.getByText(/earlier version/).click();
    await expect(row.getByText('NEWER, typed on the laptop.')).toBeVisible();
  });
  await pocket.close();
  await bag.close();
});

test('a page whose server is gone says so, and goes on with what the device holds', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const code = await giveOnDevices(page, 'Server gone', null);
  const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const phone = await enterAs(context, code);
  await startPaper(phone);
  await first(phone).fill('Before the server went.');
  await expect(phone.getByText(/^saved \d/)).toBeVisible();
  // The page is opened anew, and then nobody answers any more.
  await phone.goto(`${emptyDesk}/sit`);
  await expect(phone.getByLabel('Your join code')).toBeVisible();
  await context.route('**/api/exchange/**', (route) => route.abort());
  await phone.getByLabel('Your join code').fill(code);
  await phone.getByRole('button', { name: 'Continue' }).click();
  await expect(phone.getByText(/can’t be reached right now/)).toBeVisible();
  await phone.getByRole('button', { name: 'Continue without a connection' }).click();
  await expect(first(phone)).toHaveValue('Before the server went.');
  await second(phone).fill('While it was gone.');
  await expect(phone.getByText('saved on this device; no connection')).toBeVisible();
  await context.unroute('**/api/exchange/**');
  await expect(phone.getByText(/^saved \d/)).toBeVisible({ timeout: 30_000 });
  await handIn(phone);
  await expect(phone.getByText('2 of 2 questions')).toBeVisible();
  await context.close();
});
