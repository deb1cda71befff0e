import { expect, test, type Browser, type Page } from '@playwright/test';
import { kept, teacherSecret } from './steps';

/** Points that go on by themselves, one key an answer. */
async function marks(page: Page, points: readonly number[]) {
  await expect(page.getByRole('list', { name: 'Answers' })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: /\d+ piles?, \d+ left alone/ })).toBeVisible();
  const goesOn = page.getByRole('switch', { name: /Points go on/ });
  if (!(await goesOn.isChecked())) await page.keyboard.press('F4');
  await expect(goesOn).toBeChecked();
  for (const worth of points) {
    const before = await page.getByText(/^(\d+ left|all marked)$/).textContent();
    await page.keyboard.press(String(worth));
    await expect(page.getByText(before ?? '', { exact: true })).toBeHidden();
  }
}

const giveForm = (page: Page) => page.getByRole('complementary', { name: 'Give answers to markers' });
const rowOf = (page: Page, marker: string) => page.getByRole('row', { name: new RegExp(marker) });
const markedBy = async (page: Page, marker: string) =>
  Number(/(\d+) of \d+/.exec((await rowOf(page, marker).textContent()) ?? '')?.[1] ?? 0);

async function colleague(browser: Browser) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true });
  return context.newPage();
}

test('a share goes as a sealed file, is marked without names, and comes back; what differs is settled', async ({
  page,
  browser,
}) => {
  await page.goto('/sittings/tides/markers');
  await giveForm(page).getByRole('textbox', { name: 'Markers' }).fill('Ana Prieto');
  for (const other of ['11', '12', '13'])
    await giveForm(page).getByRole('checkbox', { name: other }).uncheck();
  const saving = page.waitForEvent('download');
  await giveForm(page).getByRole('button', { name: 'Give 92 answers' }).click();
  const file = await (await saving).path();
  const code = (await rowOf(page, 'Ana Prieto').locator('code').textContent()) ?? '';
  await kept(page, `Tell Ana Prieto the code ${code}`);

  const other = await colleague(browser);
  await other.goto('/share');
  await other.getByLabel('Choose the file of a share').setInputFiles(file);
  await other.getByRole('textbox', { name: 'Code' }).fill('AAAAA-22222');
  await other.getByRole('button', { name: 'Open the file' }).click();
  await expect(other.getByText('This code doesn’t open the file')).toBeVisible();
  await other.getByRole('textbox', { name: 'Code' }).fill(code.toLowerCase().replace('-', ' '));
  await other.getByRole('button', { name: 'Open the file' }).click();
  await expect(other.getByRole('region', { name: 'This share of marking' })).toContainText(
    '0 of 92 answers marked',
  );
  await expect(other.getByRole('heading', { name: 'Question 10, 4 points' })).toBeVisible();
  await marks(other, [3, 2, 1]);
  await other.getByRole('switch', { name: 'Show names' }).click();
  await expect(
    other
      .getByRole('list', { name: 'Answers' })
      .getByText(/Script \d+/)
      .first(),
  ).toBeVisible();
  const back = other.waitForEvent('download');
  await other.getByRole('button', { name: 'Save the marks to send back' }).click();
  const marked = await (await back).path();

  await page.getByRole('link', { name: 'Back to marking' }).click();
  await marks(page, [1, 2]);
  await page.goto('/sittings/tides/markers');
  await page.getByLabel('Choose files with marks').setInputFiles([marked, file]);
  const told = page.getByRole('region', { name: 'Marks that came back' }).getByRole('status');
  await expect(told).toContainText(/Ana Prieto: \d+ answers? marked\./);
  await expect(told).toContainText('Not a file of this kind');
  const differ = page.getByRole('region', { name: 'Where markers differ' });
  // The demo has a second marker of its own.
  const pairs = differ.getByRole('combobox', { name: 'Markers' });
  await pairs.selectOption({ label: await pairs.getByText(/^You and Ana Prieto/).innerText() });
  await expect(differ.getByText(/answers? that both marked/)).toBeVisible();
  const settle = differ.getByRole('group', { name: /^Settle question 10/ }).first();
  await settle.getByRole('button', { name: /^Ana Prieto: 3/ }).click();
  await expect(settle).toContainText('settled at 3');
  // What counts, and how it came to be, is in Mark.
  await page.goto('/sittings/tides/mark?question=t10');
  await page
    .getByRole('list', { name: 'Answers' })
    .locator('[data-row]')
    .filter({ hasText: '3 / 4' })
    .first()
    .click();
  await page.getByText(/^Mark history/).click();
  await expect(page.getByText(/“as Ana Prieto gave”/).first()).toBeVisible();
  await expect(page.getByText(/Ana Prieto/).first()).toBeVisible();
});

test('two colleagues mark over the server; one is pulled back, and the two are held against each other', async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(180_000);
  await page.goto('/sittings/tides/devices');
  await page.getByLabel('The teacher’s secret').fill(teacherSecret);
  await page.getByRole('button', { name: 'Pair browser' }).click();
  await expect(page.getByRole('button', { name: 'End pairing' })).toBeVisible();
  await page.goto('/sittings/tides/markers');
  const form = giveForm(page);
  await form.getByRole('textbox', { name: 'Markers' }).fill('Ana Prieto, Bo Lindqvist');
  await form.getByRole('radio', { name: 'all of them' }).check();
  await form.getByRole('radio', { name: 'Over the classroom server' }).check();
  await form.getByRole('button', { name: 'Give 2 markers 368 answers each' }).click();
  await expect(rowOf(page, 'Bo Lindqvist').getByText('on the server')).toBeVisible();
  const codes = await Promise.all(
    ['Ana Prieto', 'Bo Lindqvist'].map((name) => rowOf(page, name).locator('code').textContent()),
  );

  const [ana, bo] = [await colleague(browser), await colleague(browser)];
  const fetches = async (other: Page, address: string, code: string) => {
    await other.goto(address);
    await other.getByRole('textbox', { name: 'Code' }).fill(code);
    await other.getByRole('button', { name: 'Fetch from the server' }).click();
    await expect(other.getByText('0 of 368 answers marked')).toBeVisible({ timeout: 40_000 });
  };
  // No code of theirs is that long: it is answered like any that opens nothing.
  await ana.goto('/share');
  await ana.getByRole('textbox', { name: 'Code' }).fill('A'.repeat(300));
  await ana.getByRole('button', { name: 'Fetch from the server' }).click();
  await expect(ana.getByText('The server at this address has no share for this code.')).toBeVisible();
  // One of them is on a page that is not secure, as from another computer of the room.
  await fetches(ana, `${(baseURL ?? '').replace('localhost', 'classroom.test')}/share`, codes[0] ?? '');
  await fetches(bo, '/share', codes[1] ?? '');
  await marks(ana, [3, 1]);
  await marks(bo, [1, 1]);
  for (const other of [ana, bo]) await expect(other.getByText(/^All sent at/)).toBeVisible();
  await expect.poll(() => markedBy(page, 'Ana Prieto')).toBeGreaterThan(1);
  await expect.poll(() => markedBy(page, 'Bo Lindqvist')).toBeGreaterThan(1);
  const differ = page.getByRole('region', { name: 'Where markers differ' });
  const pairs = differ.getByRole('combobox', { name: 'Markers' });
  await pairs.selectOption({ label: await pairs.getByText(/^Ana Prieto and Bo Lindqvist/).innerText() });
  await expect(differ.getByText(/that both marked/)).toBeVisible();
  await expect(differ.getByText('Kappa, quadratic weights')).toBeVisible();

  await page.getByRole('button', { name: 'Pull back the share of Bo Lindqvist' }).click();
  await expect(page.getByRole('button', { name: 'Take again: marks of Bo Lindqvist' })).toBeVisible();
  const before = await markedBy(page, 'Bo Lindqvist');
  await marks(bo, [2]);
  await expect(bo.getByText('It was pulled back')).toBeVisible();
  expect(await markedBy(page, 'Bo Lindqvist')).toBe(before);
  await differ
    .getByRole('group', { name: /^Settle question/ })
    .first()
    .getByRole('button', { name: /^Mean/ })
    .click();
  await expect(differ.getByText(/settled at 2$/).first()).toBeVisible();
});

test('a blind sample of what was marked comes again, and is held against what was given before', async ({
  page,
}) => {
  await page.goto('/sittings/lights/markers');
  await page.getByRole('button', { name: /^Mark \d+ answers? again$/ }).click();
  await expect(page.getByRole('heading', { name: /^Marked again: / })).toBeVisible();
  const region = page.getByRole('region', { name: 'This share of marking' });
  const all = Number(/of (\d+) answers/.exec((await region.textContent()) ?? '')?.[1] ?? 0);
  expect(all).toBeGreaterThanOrEqual(8);
  await marks(page, [0, 0, 0]);
  await page.getByRole('link', { name: 'Compare with what you gave before' }).click();
  await expect(page.getByText(/answers that both marked/)).toBeVisible();
  await expect(page.getByRole('row', { name: /You, again/ })).toContainText(`3 of ${all}`);
  await expect(page.getByRole('button', { name: /^You, again: 0/ }).first()).toBeVisible();
});

test('two tabs mark the same question: each sees what the other gave, and nothing is overwritten', async ({
  page,
  context,
}) => {
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await tab.goto('/sittings/tides/mark?question=t12');
    await expect(tab.getByRole('status').filter({ hasText: /\d+ piles?, \d+ left alone/ })).toBeVisible();
  }
  const row = (tab: Page, n: number) =>
    tab.getByRole('list', { name: 'Answers' }).locator(`[data-row="${n}"]`);
  await row(page, 3).click();
  await row(other, 4).click();
  await page.keyboard.press('2');
  await other.keyboard.press('1');
  for (const tab of [page, other]) {
    await expect(row(tab, 3)).toContainText('2 / 3');
    await expect(row(tab, 4)).toContainText('1 / 3');
  }
  // On the same answer: points of one, a comment of the other.
  await row(other, 3).click();
  await other.getByRole('textbox', { name: /^Comment the student sees/ }).fill('From the other tab');
  await other.keyboard.press('Enter');
  await page.keyboard.press('3');
  for (const tab of [page, other]) {
    await expect(row(tab, 3)).toContainText('3 / 3');
    await expect(
      tab
        .getByText('From the other tab')
        .or(tab.getByRole('textbox', { name: /^Comment the student sees/ }))
        .first(),
    ).toBeVisible();
  }
  await expect(page.getByRole('textbox', { name: /^Comment the student sees/ })).toHaveValue(
    'From the other tab',
  );
});
