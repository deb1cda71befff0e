import { expect, test, type Page } from '@playwright/test';

/** The first open question of the mid-course exam, in which many different answers wait. */
async function opened(page: Page) {
  await page.goto('/sittings/tides/mark');
  await expect(page.getByRole('list', { name: 'Answers' })).toBeVisible();
}

const left = async (page: Page) =>
  Number(/(\d+) left/.exec((await page.getByText(/^\d+ left$/).textContent()) ?? '')?.[1] ?? 0);

test('at full key speed no act is lost: digits and letters, each for its own answer', async ({ page }) => {
  await opened(page);
  const before = await left(page);
  expect(before).toBeGreaterThan(40);
  // As fast as keys can be sent, far beyond twenty a second.
  for (let n = 0; n < 15; n++) for (const key of ['1', 'Enter']) await page.keyboard.press(key);
  await expect(page.getByText(`${before - 15} left`, { exact: true })).toBeVisible();
  for (let n = 0; n < 15; n++) for (const key of ['a', 'Enter']) await page.keyboard.press(key);
  await expect(page.getByText(`${before - 30} left`, { exact: true })).toBeVisible();
  // All in one breath: the page has no time to draw between two keys.
  await page.evaluate(() => {
    for (let n = 0; n < 10; n++)
      for (const key of ['b', 'Enter'])
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  });
  await expect(page.getByText(`${before - 40} left`, { exact: true })).toBeVisible();
});

test('keys work wherever no text is written: after a line, points, the names and a question were clicked', async ({
  page,
}) => {
  await opened(page);
  const answers = page.getByRole('list', { name: 'Answers' });
  const current = answers.locator('[aria-current="true"]');
  await page
    .getByRole('group', { name: 'Points' })
    .getByRole('button', { name: 'Give 1', exact: true })
    .click();
  await expect(current).toContainText('1 / ');
  await page.keyboard.press('2');
  await expect(current).toContainText('2 / ');
  await page.getByRole('checkbox', { name: /^A / }).click();
  await page.keyboard.press('0');
  await expect(current).toContainText('0 / ');
  const row = await current.getAttribute('data-row');
  await page.getByRole('switch', { name: 'Show names' }).click();
  await page.keyboard.press('ArrowDown');
  await expect(current).not.toHaveAttribute('data-row', row ?? '');
  await page
    .getByRole('navigation', { name: 'Questions' })
    .getByRole('button', { name: /^Question \d+, \d+ wait/ })
    .last()
    .click();
  const before = await left(page);
  await page.keyboard.press('1');
  await page.keyboard.press('Enter');
  await expect(page.getByText(`${before - 1} left`, { exact: true })).toBeVisible();
  // With the keyboard alone, a control that has the focus still does what it does.
  await page.getByRole('switch', { name: 'Show names' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('switch', { name: 'Show names' })).toBeChecked();
});

test('points that cannot be given are refused in words, and what counts is what is shown', async ({
  page,
}) => {
  await opened(page);
  const current = page.getByRole('list', { name: 'Answers' }).locator('[aria-current="true"]');
  const status = page.getByRole('status');
  // Digits more than a second and a half apart are two numbers: nothing else keeps the page busy meanwhile.
  await expect(status.filter({ hasText: /\d+ piles, \d+ left alone/ })).toBeVisible();
  for (const key of ['1', '.', '2', '5']) await page.keyboard.press(key);
  await expect(current).toContainText('1.25 / ');
  await expect(status.filter({ hasText: /1\.25 of/ })).toBeVisible();
  for (const key of ['Backspace', '1', '.', '3']) await page.keyboard.press(key);
  await expect(
    status.filter({ hasText: '1.3 was not taken: points are given in steps of 0.25' }),
  ).toBeVisible();
  await expect(current).toContainText('1 / ');
  await page.keyboard.press('Backspace');
  for (const key of ['.', '5']) await page.keyboard.press(key);
  await expect(current).toContainText('0.5 / ');
  const field = page.getByRole('textbox', { name: 'Points for the current answers' });
  await field.fill('77');
  await expect(page.getByText(/^0 to \d$/)).toBeVisible();
  await field.blur();
  await expect(field).toHaveValue('0.5');
  await expect(current).toContainText('0.5 / ');
});

test('a pile is put forward, agreed to once seen, marked by one key, changed by keys and taken back', async ({
  page,
}) => {
  await opened(page);
  const answers = page.getByRole('list', { name: 'Answers' });
  const current = answers.locator('[aria-current="true"]');
  const status = page.getByRole('status');
  await expect(status.filter({ hasText: /\d+ piles, \d+ left alone/ })).toBeVisible();
  await expect(current).toHaveAccessibleName(/Pile of 2 wordings, 6 answers, put forward/);
  // Put forward, a key gives points to these alone; agreed to, to all of the pile.
  await page.keyboard.press('1');
  await expect(status.filter({ hasText: '1 of 4 for 5 answers' })).toBeVisible();
  await page.keyboard.press('Shift+Enter');
  await expect(current).toHaveAccessibleName(/6 answers, marked as one/);
  await expect(page.getByRole('heading', { name: 'For all 6 answers of this pile' })).toBeVisible();
  await page.keyboard.press('3');
  await expect(status.filter({ hasText: '3 of 4 for 6 answers' })).toBeVisible();
  await expect(answers.getByRole('button', { name: /marked as one\. 3 \/ 4/ })).toHaveCount(2);
  await page.keyboard.press('F2');
  await page.keyboard.type('Earth and boat');
  await page.keyboard.press('Enter');
  await expect(answers).toContainText('Earth and boat: 2 wordings, 6 answers, marked as one');
  // Taken out, an answer stands alone and keeps what it had.
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Shift+Delete');
  await expect(current).toHaveAccessibleName(/deviation is from the boat\..* 3 \/ 4$/);
  for (const said of ['taken out', 'Pile named', '3 of 4', 'marked as one', '1 of 4']) {
    await page.keyboard.press('Control+z');
    await expect(status.filter({ hasText: new RegExp(`Undone: .*${said}`) })).toBeVisible();
  }
  await expect(answers.locator('[data-row="0"]')).toHaveAccessibleName(/6 answers, put forward\. waits/);
});

test('what waits over all sittings: sorted by size and age, and gone to with Enter', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('heading', { name: 'On the desk' }).waitFor();
  await page.keyboard.press('Alt+w');
  await expect(page.getByRole('heading', { name: 'What waits for a mark' })).toBeVisible();
  const rows = page.getByRole('row');
  await expect(page.getByRole('columnheader', { name: /Handed in since/ })).toHaveAttribute(
    'aria-sort',
    'ascending',
  );
  await page.getByRole('button', { name: 'Waiting' }).click();
  await expect(page.getByRole('columnheader', { name: /Waiting/ })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
  await expect(rows.nth(1)).toContainText('92');
  await rows.nth(1).getByRole('link').focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('list', { name: 'Answers' })).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Question 1[012], / })).toBeVisible();
});

test('what a similar answer has is put forward, and given by one key', async ({ page }) => {
  await opened(page);
  const current = page.getByRole('list', { name: 'Answers' }).locator('[aria-current="true"]');
  await expect(current).toHaveAccessibleName(/Pile of 2 wordings, 6 answers, put forward/);
  for (const key of ['a', 'c', 'ArrowDown']) await page.keyboard.press(key);
  await expect(page.getByRole('group', { name: 'Put forward' })).toContainText(
    '5 similar answers have 2 of 4 (A C): “variation = earth, deviation = boat”',
  );
  await expect(current).toContainText('like 2 A C?');
  await page.keyboard.press('=');
  await expect(current).toContainText('2 / 4  A C');
  await expect(
    page.getByRole('status').filter({ hasText: '2 of 4 for 1 answer, like similar ones' }),
  ).toBeVisible();
  await expect(page.getByRole('group', { name: 'Put forward' })).toHaveCount(0);
});
