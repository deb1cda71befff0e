import { readFileSync } from 'node:fs';
import { unzipSync, zipSync } from 'fflate';
import { expect, test } from '@playwright/test';
import { enterAs, kept, stage, startPaper } from './steps';

test.beforeEach(async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();
});

test('the desk is a stack of strips, the most pressing on top, each saying what is left', async ({
  page,
}) => {
  await expect(page.getByRole('article').getByRole('heading')).toHaveText([
    'Quiz 2: collision rules',
    'Mid-course exam: tides, passage and compass',
    'Chart symbols, on paper',
    'Quiz 3: weather for coastal passages',
    'Quiz 4: planning a passage',
    'Quiz 1: lights and marks',
  ]);
  const exam = page.getByRole('navigation', { name: 'Stages of Mid-course exam' });
  await expect(exam.getByRole('link', { name: 'Mark 338 answers wait' })).toBeVisible();
  await expect(exam.getByRole('link', { name: 'Run all 92 handed in' })).toBeVisible();
});

test('marking by keys: lines, points, put aside, back, undo, and what Enter will do', async ({ page }) => {
  await page.goto('/sittings/tides/mark');
  // Piles are put forward a moment later: until then answers stand in another order.
  await expect(page.getByRole('status').filter({ hasText: /\d+ piles, \d+ left alone/ })).toBeVisible();
  const list = page.getByRole('list', { name: 'Answers' });
  const current = list.locator('[aria-current=true]');
  await expect(current).toBeFocused();
  const first = await current.getAttribute('data-row');
  const leftBefore = Number.parseInt((await page.getByText(/^\d+ left$/).textContent()) ?? '', 10);
  await page.keyboard.press('a');
  await page.keyboard.press('c');
  await expect(current).toContainText('2 / 4');
  await expect(current).toContainText('A C');
  await page.keyboard.press('c');
  await expect(current).toContainText('1 / 4');
  await page.keyboard.press('2');
  await page.keyboard.press('.');
  await page.keyboard.press('5');
  await expect(current).toContainText('2.5 / 4');
  await page.keyboard.press('9');
  await kept(page, '2.59 was not taken: points are given in steps of 0.25');
  await page.keyboard.press('Enter');
  await expect(page.getByText(`${leftBefore - 1} left`, { exact: true })).toBeVisible();
  expect(await current.getAttribute('data-row')).not.toBe(first);
  await page.keyboard.press(' ');
  await expect(current).toContainText('aside');
  // Back to it, over what of its pile was passed.
  await expect(async () => {
    await page.keyboard.press('ArrowUp');
    await expect(current).toContainText('2.5 / 4', { timeout: 1_000 });
  }).toPass();
  await page.keyboard.press('Control+z');
  await kept(page, /^Undone: Question 10: set aside/);
  // The points, then three switches of a line: each is a step of its own.
  for (const left of ['1 / 4', '2 / 4', '1 / 4', 'waits']) {
    await page.keyboard.press('Control+z');
    await expect(current).toContainText(left);
  }
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('switch a scheme line');
});

test('blank answers are put forward as blank, and only Enter says so', async ({ page }) => {
  await page.goto('/sittings/tides/mark');
  const current = page.getByRole('list', { name: 'Answers' }).locator('[aria-current=true]');
  await expect(current).toBeFocused();
  // The blank ones come last.
  for (let step = 0; step < 90; step++) await page.keyboard.press('ArrowDown');
  await expect(current).toHaveAccessibleName(/^×\d+ not answered.* waits$/);
  await expect(page.getByText(/gives \d+ blank answers? 0 points/)).toBeVisible();
  await page.keyboard.press('Enter');
  await kept(page, /Question 10: 0 of 4 for \d+ answer/);
});

test('names are hidden until asked for', async ({ page }) => {
  await page.goto('/sittings/lights/mark?question=l10');
  await expect(page.getByRole('list', { name: 'Answers' })).toBeVisible();
  const list = page.getByRole('list', { name: 'Answers' });
  await expect(list).not.toContainText('Benali');
  await page.getByRole('switch', { name: 'Show names' }).check();
  await expect(list).toContainText(/[A-Z]\w+ [A-Z]\w+/);
});

test('a script shows one student whole, and leads to the next', async ({ page }) => {
  await page.goto('/sittings/lights/hand-back');
  await page.getByRole('link', { name: 'Benali, Linh' }).click();
  await expect(page.getByRole('heading', { name: 'Linh Benali' })).toBeVisible();
  const total = page.getByText(/^\d+(\.\d+)? of 15/);
  const before = await total.textContent();
  const tenth = page.getByRole('region', { name: 'Question 2' });
  await tenth.getByLabel('Points for question 2').fill('0,5');
  await expect(tenth).toContainText('overridden');
  await expect(total).not.toHaveText(before ?? '');
  await tenth.getByRole('button', { name: /Remove override/ }).click();
  await expect(total).toHaveText(before ?? '');
  await page.getByRole('link', { name: 'Next →' }).click();
  await expect(page.getByRole('heading', { name: 'Linh Benali' })).toHaveCount(0);
});

test('search finds students, papers, sittings and actions', async ({ page }) => {
  await page.keyboard.press('Control+k');
  await page.getByRole('textbox', { name: 'Search' }).fill('weather');
  await page.getByRole('button', { name: /weather for coastal passages/ }).click();
  await expect(page.getByRole('textbox', { name: 'Title', exact: true })).toHaveValue(
    'Quiz 3: weather for coastal passages',
  );
});

test('what is not ready in a paper leads to its place', async ({ page }) => {
  await page.goto('/papers/paper-weather');
  await page.getByRole('button', { name: 'Question 6: option B is empty' }).click();
  await expect(page.getByLabel('Option B', { exact: true })).toBeFocused();
  // Closed again, so that all questions are in sight and nothing needs to scroll.
  await page.reload();
  await page.getByRole('button', { name: /Move question 6/ }).focus();
  await page.keyboard.press('Space');
  await kept(page, 'Question 6 is over place 6');
  // The places are measured a moment after the question is picked up: a key that comes before moves nothing.
  await expect(async () => {
    await page.keyboard.press('ArrowUp');
    await expect(page.getByRole('status').filter({ hasText: 'Question 6 is over place 5' })).toBeVisible({
      timeout: 2_000,
    });
  }).toPass();
  await page.keyboard.press('Space');
  await kept(page, 'Question 6 moved to 5');
});

test('the look at a paper is what a student gets', async ({ page }) => {
  await page.goto('/papers/paper-tides/look');
  await page
    .getByRole('region', { name: 'Question 1', exact: true })
    .getByRole('radio', { name: /3\/12/ })
    .check();
  await expect(page.getByRole('main')).not.toContainText('Say the row aloud');
});

test('a demo student goes on where the made-up class left off, and the grid follows', async ({
  page,
  context,
}) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: '4 not started' }).click();
  const name = (await page.getByRole('rowheader').first().textContent()) ?? '';
  await page.getByRole('rowheader').first().getByRole('button').click();
  const code = await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent();
  const student = await enterAs(context, code ?? '', new URL(page.url()).origin);
  await startPaper(student, 'flood');
  await student.getByRole('radio').first().check();
  await expect(page.getByRole('button', { name: '11 working' })).toBeVisible();
  await page.getByRole('button', { name: '3 not started' }).click();
  await expect(
    page.getByRole('row', { name: new RegExp(name) }).getByRole('img', { name: /% of the points/ }),
  ).toHaveCount(1);
});

test('the whole desk is saved, and a damaged file changes nothing', async ({ page }) => {
  await page.goto('/backup');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a backup' }).click();
  const whole = readFileSync(await (await saving).path());
  const file = (buffer: Buffer) => ({ name: 'desk.zip', mimeType: 'application/zip', buffer });
  const choose = page.locator('input[type=file]');
  await choose.setInputFiles(file(whole.subarray(0, 9000)));
  await expect(page.getByRole('alert')).toContainText('Nothing was changed');
  // Changed by somebody, and packed again.
  const parts = unzipSync(whole);
  parts['tables/log.jsonl'] = Buffer.from('{}');
  await choose.setInputFiles(file(Buffer.from(zipSync(parts))));
  await expect(page.getByRole('alert')).toContainText('its content has changed');
  await page.getByRole('button', { name: 'Empty the desk' }).click();
  await expect(page.getByRole('dialog')).toContainText('92 students, 3 groups, 6 papers, 4 sittings');
  await page.getByRole('button', { name: 'Empty permanently' }).click();
  await kept(page, 'The desk is empty');
  await expect(page.getByRole('link', { name: 'Create the first group' })).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Start with your students' })).toBeVisible();
  await page.goto('/backup');
  await choose.setInputFiles(file(whole));
  await page.getByRole('button', { name: 'Replace permanently' }).click();
  await kept(page, /is restored$/);
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'Mark 338 answers wait' })).toBeVisible();
});

test('the strip leads through all five stages', async ({ page }) => {
  await page.goto('/sittings/lights/run');
  for (const [name, heading] of [
    ['Mark', 'Question 10, 3 points'],
    ['Analyse', 'Questions'],
    ['Hand back', 'What they see'],
    ['Write', 'The paper'],
  ] as const) {
    await stage(page, name);
    await expect(page.getByRole('heading', { name: heading, exact: true })).toBeVisible();
  }
});

test('another attempt is given to one student, starts afresh and is the one that counts', async ({
  page,
  context,
}) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: '18 handed in' }).click();
  const name = (await page.getByRole('rowheader').first().textContent()) ?? '';
  await page.getByRole('rowheader').first().getByRole('button').click();
  const code = (await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
  await page.getByRole('button', { name: 'Another attempt', exact: true }).click();
  await page.getByLabel('Reason, kept on record').selectOption('another reason');
  await page.getByLabel('Reason in your own words').fill('Fire alarm');
  await page.getByRole('button', { name: 'Give another attempt' }).click();
  await expect(page.getByText(/another attempt given \(Fire alarm\)/)).toBeVisible();
  const student = await enterAs(context, code, new URL(page.url()).origin);
  await expect(student.getByText(/You can make another attempt/)).toBeVisible();
  await startPaper(student, 'flood');
  await expect(student.getByText('0 of 8 answered')).toBeVisible();
  await page.getByRole('button', { name: '11 working' }).click();
  await expect(page.getByRole('row', { name: new RegExp(name) })).toContainText('attempt 2');
});

test('a group alone has figures of its own, and a changed key is shown before it is kept', async ({
  page,
}) => {
  await page.goto('/sittings/lights/analyse');
  const figure = (word: string) => page.getByText(word, { exact: true }).locator('xpath=../dd');
  await expect(figure('handed in')).toHaveText('92');
  await page.getByLabel('Group', { exact: true }).selectOption('Saturday morning');
  await expect(figure('handed in')).toHaveText('29');

  await stage(page, 'Write');
  await page.getByRole('button', { name: 'Open question 1:' }).click();
  await page.getByRole('radio', { name: 'C is right' }).check();
  await page.getByRole('heading', { name: /^Question 1,/ }).click();
  await page.keyboard.press('Escape');
  await expect(
    page.getByText(
      /Students sat an earlier version of this paper.*\d+ answers of the 92 students who have handed in would get different points/,
    ),
  ).toBeVisible();
  const before = await page.getByRole('link', { name: /^Analyse mean/ }).textContent();
  await page.getByRole('button', { name: 'Score with the changed paper' }).click();
  await expect(page.getByText(/Students sat an earlier version/)).toHaveCount(0);
  await expect(page.getByRole('link', { name: /^Analyse mean/ })).not.toHaveText(before ?? '');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('link', { name: /^Analyse mean/ })).toHaveText(before ?? '');
});

test('the close of a running sitting can be moved for everyone', async ({ page }) => {
  await page.goto('/sittings/rules/run');
  await page.getByRole('button', { name: 'Change settings' }).click();
  await page.getByRole('checkbox', { name: /^Closes/ }).uncheck();
  await page.getByLabel('Access code').fill('slack');
  await page.getByRole('button', { name: 'Save for everyone' }).click();
  await kept(page, 'Settings changed');
  await expect(page.getByRole('definition').filter({ hasText: 'no closing time' })).toBeVisible();
  await expect(page.getByRole('definition').filter({ hasText: 'slack' })).toBeVisible();
});

test('questions are moved by the mouse, and the paper keeps its new order', async ({ page }) => {
  await page.goto('/papers/paper-weather');
  const handle = page.getByRole('button', { name: 'Move question 1' });
  const target = page.getByRole('button', { name: 'Move question 3' });
  const said = (text: string) => page.getByRole('status').filter({ hasText: text });
  await handle.hover();
  const to = await target.boundingBox();
  if (!to) throw new Error('the handle is not on the page');
  const x = to.x + 8;
  await page.mouse.down();
  await page.mouse.move(x, to.y - 40, { steps: 5 });
  await expect(said('Question 1')).toBeAttached();
  await page.mouse.move(x, to.y + 20, { steps: 10 });
  // Let go only where the list knows that it is: a slow machine draws it later than the mouse moves.
  await expect(said('Question 1 is over place 3')).toBeAttached();
  await page.mouse.up();
  await kept(page, 'Question 1 moved to 3');
  await page.reload();
  await expect(page.getByRole('button', { name: 'Open question 3:' })).toContainText('back to the wind');
});
