import { expect, test, type Page } from '@playwright/test';
import { beginPaper, goIn, kept } from './steps';

/** What loses nothing, and must not stand in the way. */

const views = [
  '/',
  '/groups',
  '/groups/group1',
  '/bank',
  '/backup',
  '/kept',
  '/requests',
  '/papers/paper-weather',
  '/papers/paper-tides/give',
  '/papers/paper-passage/sheet',
  '/sittings/rules/run',
  '/sittings/tides/mark',
  '/sittings/tides/markers',
  '/share',
  '/sittings/lights/scripts/student03',
  '/sittings/lights/analyse',
  '/sittings/lights/repair?question=l11',
  '/sittings/lights/class',
  '/sittings/tides/growth',
  '/sittings/lights/report',
  '/sittings/tides/hand-back',
  '/sittings/lights/preview',
  '/sittings/lights/grades',
  '/sittings/lights/export',
  '/sittings/lights/message',
  '/mark-books',
  '/answers',
  '/papers/paper-tides/paste',
  '/guide/privacy',
  '/mark-books/navigation',
  '/students/student03',
  '/sittings/lights/hand-back',
];

// WCAG 2.2, 1.4.10: at 320 px nothing but tables, which have a place of their own, is scrolled in two directions.
test('every view of the desk reflows at 320 px, has its landmarks, and leaves the console quiet', async ({
  page,
}) => {
  await page.setViewportSize({ width: 320, height: 640 });
  const said: string[] = [];
  page.on('console', (message) => {
    // The tests' own: what keeps pages in the browser is tried in a test of its own.
    if (message.text().includes('blocked by Playwright')) return;
    if (['warning', 'error'].includes(message.type())) said.push(message.text());
  });
  page.on('pageerror', ({ message }) => said.push(message));
  for (const path of views) {
    await page.goto(path);
    await expect(page.locator('main :is(h1, h2)').first()).toBeVisible();
    await expect(page.getByRole('main')).toHaveCount(1);
    await expect(page.getByRole('navigation', { name: 'Desk' })).toBeVisible();
    await expect(page.getByRole('contentinfo', { name: 'Saved state' })).toBeVisible();
    // By how much the page is wider than the screen.
    const over = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    await expect.poll(over, { message: path }).toBeLessThanOrEqual(0);
  }
  expect(said).toEqual([]);
});

test('what is opened on a view reflows at 320 px, too', async ({ page }) => {
  await page.setViewportSize({ width: 320, height: 640 });
  const open = (name: string | RegExp) => () =>
    page.getByRole('button', { name, exact: true }).first().click();
  const opened: [path: string, how: () => Promise<void>, seen: string][] = [
    ['/papers/paper-tides', open(/^Open question 4:/), 'Text of question 4'],
    ['/papers/paper-lights', open(/^Open question 1:/), 'Text of question 1'],
    ['/papers/paper-passage', open(/^Open question 9:/), 'Text of question 9'],
    ['/sittings/rules/run', open('Change settings'), 'Name of this sitting'],
  ];
  for (const [path, how, seen] of opened) {
    await page.goto(path);
    await how();
    await expect(page.getByLabel(seen, { exact: true }).first()).toBeVisible();
    const over = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    await expect.poll(over, { message: path }).toBeLessThanOrEqual(0);
  }
});

test('all the rules can be changed; those that no longer can say why', async ({ page }) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: 'Change settings' }).click();
  const form = page.getByRole('form', { name: 'Change settings' });
  await expect(form.getByLabel('Name of this sitting')).toBeFocused();
  await expect(form.getByRole('checkbox', { name: /^Opens/ })).toBeDisabled();
  await expect(form.getByText(/The opening time can’t change after the first student/)).toBeVisible();
  await expect(form.getByRole('checkbox', { name: /^Monday evening/ })).toBeDisabled();
  await expect(form.getByRole('radio', { name: 'all on one page' })).toBeDisabled();
  await form.getByLabel('Time limit in minutes').fill('50');
  await form.getByRole('checkbox', { name: /^Saturday morning/ }).check();
  await form.getByRole('button', { name: 'Save for everyone' }).click();
  await kept(page, 'Settings changed');
  await expect(page.getByRole('definition').filter({ hasText: '50 min' })).toBeVisible();
  await expect(page.getByText('For the 61 students shown')).toBeVisible();
});

test('Enter goes on to the next option and begins one after the last; Ctrl Enter a question; what is next stays in reach', async ({
  page,
}) => {
  await beginPaper(page, 'Options');
  await page.getByRole('group', { name: 'New question' }).getByRole('button', { name: 'One choice' }).click();
  await page.getByLabel('Text of question 1').fill('Which side?');
  await page.getByRole('textbox', { name: 'Option A' }).click();
  const words = ['port', 'starboard', 'ahead', 'astern', 'abeam', 'none of them'];
  for (const [index, word] of words.entries()) {
    await expect(page.getByRole('textbox', { name: `Option ${'ABCDEF'.charAt(index)}` })).toBeFocused();
    await page.keyboard.type(word);
    if (index < words.length - 1) await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Shift+Enter');
  await expect(page.getByRole('textbox', { name: 'Option F' })).toHaveValue('none of them\n');
  const margin = page.getByRole('complementary', { name: 'About the open question' });
  await expect(margin.getByRole('link', { name: 'Preview as a student' })).toBeVisible();
  await expect(margin.getByRole('link', { name: 'Print' })).toBeVisible();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByRole('textbox', { name: 'Text of question 2' })).toBeFocused();
});

test('a student asks from inside the attempt; the teacher sees it whatever is open, and Escape closes a student’s panel', async ({
  page,
  context,
}) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: '10 working' }).click();
  const name = page.getByRole('rowheader').first().getByRole('button');
  await name.click();
  const panel = page.getByRole('complementary', { name: 'About the student' });
  const code = (await panel.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
  // From within the panel, the focus goes back to the row.
  await panel.getByRole('button', { name: 'Back to the sitting' }).focus();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('complementary', { name: 'About the sitting' })).toBeVisible();
  await expect(name).toBeFocused();

  const sit = await context.newPage();
  await sit.setViewportSize({ width: 360, height: 640 });
  await sit.goto('/sit');
  await goIn(sit, code);
  await sit.getByRole('button', { name: 'Continue' }).click();
  await sit.getByRole('button', { name: 'Ask your teacher about this paper' }).click();
  await expect(sit.getByLabel('I need')).toBeFocused();
  await sit.getByRole('textbox', { name: /^Reason/ }).fill('The fire alarm rang.');
  await sit.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(sit.getByText('Your teacher hasn’t answered yet.')).toBeVisible();

  const desk = await context.newPage();
  await desk.goto('/bank');
  await expect(desk.getByRole('status', { name: 'Requests' })).toHaveText('2 requests');
  await desk.getByRole('link', { name: '2 requests' }).click();
  await expect(desk.getByText('The fire alarm rang.')).toBeVisible();
});

/** Gives the first answer of the made-up class that waits a text of 600 words. */
const makeLong = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<void>((resolve, reject) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onerror = () => reject(new Error('no desk'));
        opening.onsuccess = () => {
          const change = opening.result.transaction('attempts', 'readwrite');
          const attempts = change.objectStore('attempts');
          attempts.getAll().onsuccess = ({ target }) => {
            const rows = (target as IDBRequest<Long[]>).result;
            const row = rows.find(
              ({ sittingId, handedInAt }) => sittingId === 'rules' && handedInAt !== null,
            );
            const answers = Object.values(row?.answers ?? {});
            const open = answers.find(({ response }) => (response.text ?? '').length > 30);
            if (!open) return reject(new Error('no answer'));
            open.response.text = `The first line. ${'and so on and on '.repeat(150)} The last line.`;
            attempts.put(row);
          };
          change.oncomplete = () => {
            opening.result.close();
            resolve();
          };
        };
      }),
  );

interface Long {
  sittingId: string;
  handedInAt: string | null;
  answers: Record<string, { response: { text?: string } }>;
}

test('a long answer is read from its first line, with points and comment in sight', async ({ page }) => {
  await page.goto('/sittings/rules/mark');
  await expect(page.getByRole('list', { name: 'Answers' })).toBeVisible();
  await makeLong(page);
  await page.reload();
  await page.getByText('The first line.').click();
  const row = page.getByRole('listitem').filter({ hasText: 'The first line.' });
  const scroller = page
    .locator('[class*=scroller]')
    .filter({ has: page.getByRole('list', { name: 'Answers' }) });
  // Its top is the top of the list, and it is longer than the list is high.
  await expect
    .poll(async () => {
      const [list, answer] = [await scroller.boundingBox(), await row.boundingBox()];
      return list && answer && Math.abs(answer.y - list.y) < 3 && answer.height > list.height;
    })
    .toBe(true);
  await expect(row.getByRole('textbox', { name: /^Comment/ })).toBeInViewport({ ratio: 1 });
  await expect(row.getByText('waits')).toBeInViewport({ ratio: 1 });
});
