import { expect, test, type Page } from '@playwright/test';
import { emptyDesk, enterAs, giveOnDevices, goIn, startPaper } from './steps';

/** Where the focus is, and what the title says: what who cannot see goes by (WCAG 2.2, 2.4.2, 2.4.3 and 4.1.3). */

const focused = (page: Page) => page.evaluate(() => document.activeElement?.textContent ?? '');
const said = (page: Page) => page.getByRole('status', { name: 'Announcements' });

async function at(page: Page, heading: string): Promise<void> {
  await expect(page.getByRole('heading', { name: heading, level: 1 })).toBeFocused();
  await expect(page).toHaveTitle(`${heading} · Gribbet`);
}

/** Whether an element stands wholly below the bar. */
const belowBar = (page: Page, selector: string) =>
  page.evaluate((wanted) => {
    const bar = document.querySelector('nav[aria-label="Questions"]')?.parentElement;
    const element = wanted === 'focus' ? document.activeElement : document.querySelector(wanted);
    if (!bar || !element) return null;
    return element.getBoundingClientRect().top >= bar.getBoundingClientRect().bottom - 1;
  }, selector);

/** The question one was last at, as it lies on the device. */
const lastQuestionKept = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<unknown>((resolve, reject) => {
        const opening = indexedDB.open('gribbet-sit');
        opening.onerror = () => reject(new Error('no database'));
        opening.onsuccess = () => {
          const rows = opening.result.transaction('attempts').objectStore('attempts').getAll();
          rows.onsuccess = () => {
            opening.result.close();
            resolve((rows.result as { leftAt?: string }[])[0]?.leftAt ?? null);
          };
        };
      }),
  );

test('every view of a student’s page has the focus at its heading and its name in the title; a jump shows the question below the bar', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  const code = await giveOnDevices(page, 'Where one is', null);
  const context = await browser.newContext({ viewport: { width: 360, height: 640 } });
  const phone = await context.newPage();
  await phone.goto(`${emptyDesk}/sit`);
  await expect(phone).toHaveTitle('Sit a paper · Gribbet');
  await phone.getByLabel('Your join code').fill(code);
  await phone.getByRole('button', { name: 'Continue' }).click();
  await at(phone, 'Rania Haddad');
  await phone.getByRole('button', { name: 'Yes, this is me' }).click();
  await at(phone, 'Your papers');
  await phone.getByRole('button', { name: 'Read the instructions' }).click();
  await at(phone, 'Lights of Where one is');
  await phone.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(phone.getByRole('navigation', { name: 'Questions' })).toBeVisible();
  await at(phone, 'Lights of Where one is');

  await test.step('questions are headings; a jump goes to the start of one, below the bar', async () => {
    await expect(phone.getByRole('heading', { name: 'Question 2', level: 2 })).toBeVisible();
    await phone.getByRole('button', { name: /^Question 2:/ }).click();
    await expect(phone.getByRole('heading', { name: 'Question 2' })).toBeFocused();
    expect(await belowBar(phone, 'focus')).toBe(true);
  });

  await test.step('with the keyboard alone nothing that has the focus is hidden behind the bar', async () => {
    for (let steps = 0; steps < 12; steps++) {
      await phone.keyboard.press('Shift+Tab');
      const inBar = await phone.evaluate(
        () => document.activeElement?.closest('header, nav[aria-label="Questions"]') !== null,
      );
      if (inBar || (await focused(phone)) === 'Check and hand in') continue;
      if (await phone.evaluate(() => document.activeElement?.closest('main [id^="question-"]') !== null))
        expect(await belowBar(phone, 'focus')).toBe(true);
    }
  });

  await test.step('a mark, and where answers are kept, are said', async () => {
    await phone.getByRole('button', { name: 'Come back to this' }).first().click();
    await expect(said(phone)).toHaveText('Question 1 is marked to come back to');
    await context.setOffline(true);
    await phone.getByRole('textbox').first().fill('Flashing');
    await expect(said(phone)).toHaveText('No connection: what you type is saved on this device');
    await context.setOffline(false);
    await expect(said(phone)).toHaveText('Connected again: everything is saved');
  });

  const first = await lastQuestionKept(phone);
  await test.step('back in is two presses after the code, at the question that was left', async () => {
    await phone.getByRole('textbox').nth(1).focus();
    await expect.poll(() => lastQuestionKept(phone)).not.toBe(first);
    await phone.close();
    const again = await context.newPage();
    await again.goto(`${emptyDesk}/sit`);
    await goIn(again, code);
    await again.getByRole('button', { name: 'Continue' }).click();
    await expect(again.getByRole('heading', { name: 'Question 2' })).toBeFocused();
    await again.getByRole('button', { name: 'Check and hand in', exact: true }).click();
    await at(again, 'Check before handing in');
    await again.getByRole('button', { name: /^Hand in/ }).click();
    await at(again, 'Handed in');
    await again.close();
  });
  await context.close();
});

test('on a low and narrow screen the bar goes up with the page', async ({ page, browser }) => {
  test.setTimeout(240_000);
  const code = await giveOnDevices(page, 'Low screen', null);
  const context = await browser.newContext({ viewport: { width: 320, height: 256 } });
  const phone = await enterAs(context, code);
  await startPaper(phone);
  const sticks = await phone
    .getByRole('navigation', { name: 'Questions' })
    .evaluate((nav) => getComputedStyle(nav.parentElement ?? nav).position);
  expect(sticks).toBe('static');
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await context.close();
});

test('a result that is reloaded is there again without the code', async ({ page }) => {
  await page.goto('/groups/group1');
  const code =
    (await page
      .getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/)
      .first()
      .textContent()) ?? '';
  await page.goto('/sit');
  await goIn(page, code);
  await page.getByRole('button', { name: 'See my result' }).first().click();
  await at(page, 'Quiz 1: lights and marks');
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Quiz 1: lights and marks', level: 1 })).toBeVisible();
  await expect(page.getByLabel('Your join code')).toHaveCount(0);
  await page.getByRole('button', { name: 'Go to your papers' }).click();
  await page.reload();
  await expect(page.getByLabel('Your join code')).toBeVisible();
});
