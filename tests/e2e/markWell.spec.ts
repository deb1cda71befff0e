import { expect, test, type Page } from '@playwright/test';
import {
  beginPaper,
  enterAs,
  givePaper,
  handBack,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  seeResult,
  stage,
  startPaper,
  storedComments,
} from './steps';

/** The first open question of the mid-course exam, in which many different answers wait. */
async function opened(page: Page, question = 't10') {
  await page.goto(`/sittings/tides/mark?question=${question}`);
  await expect(page.getByRole('list', { name: 'Answers' })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: /\d+ piles, \d+ left alone/ })).toBeVisible();
}
const left = async (page: Page) =>
  Number(/(\d+) left/.exec((await page.getByText(/^\d+ left$/).textContent()) ?? '')?.[1] ?? 0);
const current = (page: Page) => page.getByRole('list', { name: 'Answers' }).locator('[aria-current="true"]');

test('points go on by themselves, halves by a slash, and only what waits is shown', async ({ page }) => {
  await opened(page, 't12');
  await page.keyboard.press('F4');
  await expect(page.getByRole('switch', { name: /Points go on/ })).toBeChecked();
  const before = await left(page);
  // One key each; the slash is for the answers just left.
  for (const key of ['1', '2', '/', '0', '*']) await page.keyboard.press(key);
  await expect(page.getByText(`${before - 4} left`, { exact: true })).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await expect(current(page)).toContainText('/ 3');
  await page.getByRole('switch', { name: /Only what still wants you/ }).click();
  const rows = page.getByRole('list', { name: 'Answers' }).getByRole('listitem');
  await expect(rows.filter({ hasText: /^(?!.*waits).*\/ 3/ })).toHaveCount(1);
  // The habit stays when the page is opened again.
  await page.reload();
  await expect(page.getByRole('switch', { name: /Points go on/ })).toBeChecked();
});

test('more than the maximum only with a reason, which stays on record beside a private note', async ({
  page,
}) => {
  await opened(page);
  const status = page.getByRole('status');
  await page.keyboard.press('9');
  await expect(status.filter({ hasText: '9 was not taken: at most 4 points' })).toBeVisible();
  await page.keyboard.press('*');
  await expect(current(page)).toContainText('4 / 4');
  await page.keyboard.press('+');
  const by = page.getByRole('textbox', { name: 'Adjust by' });
  await expect(by).toBeFocused();
  await page.keyboard.type('1');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Give a reason')).toBeVisible();
  await expect(page.getByText('4 + 1 makes 5 of 4, more than the maximum.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Reason for the adjustment' }).fill('A sketch beside it');
  await page.keyboard.press('Enter');
  await expect(current(page)).toContainText('5 / 4');
  await expect(current(page)).toContainText('+1 adjusted');
  // Not by the field of points either.
  const field = page.getByRole('textbox', { name: 'Points for the current answers' });
  await field.fill('4.5');
  await expect(page.getByText('0 to 4', { exact: true })).toBeVisible();
  await field.blur();
  await expect(current(page)).toContainText('5 / 4');
  const note = page.getByRole('textbox', { name: /^Private note/ });
  await note.fill('Ask about the sketch');
  await note.blur();
  await page.getByText(/^Mark history/).click();
  await expect(page.getByText(/adjusted by \+1 “A sketch beside it”/)).toBeVisible();
  await expect(page.getByText(/private note: Ask about the sketch/)).toBeVisible();
});

test('a comment that was typed is offered again after two letters; the bank gives it a code', async ({
  page,
}) => {
  await opened(page);
  const comment = page.getByRole('textbox', { name: 'Comment the student sees once handed back' });
  await page.keyboard.press('Tab');
  await expect(comment).toBeFocused();
  await page.keyboard.type('Say where you find it.');
  await expect(comment).toHaveValue('Say where you find it.');
  await page.keyboard.press('Enter');
  await page.keyboard.press('1');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  // The bank learns it a moment later.
  await expect(async () => {
    await comment.fill('');
    await comment.click();
    await page.keyboard.type('wh fi');
    await expect(page.getByRole('option', { name: /Say where you find it/ })).toBeVisible({ timeout: 3_000 });
    // What it learns meanwhile draws the list anew.
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(comment).toHaveValue('Say where you find it.', { timeout: 3_000 });
  }).toPass();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Comment bank' }).click();
  const bank = page.getByRole('dialog');
  await bank.getByRole('textbox', { name: /^Code of “Say where/ }).fill('wf');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Close the comment bank' }).click();
  await page.getByRole('list', { name: 'Answers' }).locator('[data-row]').nth(5).click();
  await comment.click();
  await page.keyboard.type('wf');
  await expect(page.getByRole('option', { name: /^wf Say where you find it/ })).toBeVisible();
});

test('a script is worked by keys: question to question, points, lines, the next student', async ({
  page,
}) => {
  await page.goto('/sittings/tides/scripts/student03');
  const question = page.getByRole('region', { name: 'Question 10' });
  await expect(question).toBeVisible();
  for (let n = 0; n < 10; n++) await page.keyboard.press('ArrowDown');
  await expect(question).toBeFocused();
  await page.keyboard.press('2');
  await expect(question).toContainText('of 4, by hand');
  await expect(question.getByRole('textbox', { name: 'Points for question 10' })).toHaveValue('2');
  await page.keyboard.press('a');
  await expect(question.getByRole('checkbox', { name: /^A / })).toBeChecked();
  await expect(question.getByRole('textbox', { name: 'Points for question 10' })).toHaveValue('1');
  await page.keyboard.press('Enter');
  await page.keyboard.type('Look at the rose.');
  await page.keyboard.press('Escape');
  await expect(question).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await expect(page).not.toHaveURL(/student03$/);
});

test('equal answers with unequal points are shown before handing back, and evened out by one key', async ({
  page,
}) => {
  await page.goto('/sittings/lights/fairness');
  await expect(page.getByRole('heading', { name: 'Equal answers, unequal points' })).toBeVisible();
  const rows = page.getByRole('button', { name: /: give all \d+ that$/ });
  await expect(page.getByText('None: whoever said the same got the same.')).toBeVisible();
  await expect(page.getByRole('img', { name: /Points in the order of marking/ })).toBeVisible();
  // One of several equal ones gets something else.
  await page.goto('/sittings/lights/mark?question=l10');
  const several = page.getByRole('list', { name: 'Answers' }).locator('[data-row]').filter({ hasText: /^×/ });
  await several.first().click();
  await page.getByRole('switch', { name: 'Show names' }).click();
  const names = (await current(page).textContent()) ?? '';
  expect(names).toContain(',');
  const student = await page.evaluate(async () => {
    const open = indexedDB.open('gribbet-desk');
    await new Promise((done) => (open.onsuccess = done));
    const asking = open.result.transaction('attempts').objectStore('attempts').getAll();
    await new Promise((done) => (asking.onsuccess = done));
    const texts = (
      asking.result as {
        sittingId: string;
        studentId: string;
        answers: Record<string, { response: { text?: string } }>;
      }[]
    )
      .filter(({ sittingId }) => sittingId === 'lights')
      .map(({ studentId, answers }) => ({ studentId, text: answers.l10?.response.text ?? '' }));
    const twice = texts.find(
      ({ text }, at) => text && texts.some((each, other) => other !== at && each.text === text),
    );
    return twice?.studentId ?? '';
  });
  await page.goto(`/sittings/lights/scripts/${student}`);
  const points = page.getByRole('textbox', { name: 'Points for question 10' });
  const had = await points.inputValue();
  await points.fill(had === '1' ? '0' : '1');
  await points.blur();
  await kept(page, /question 10: [01] of/);
  await page.goto('/sittings/lights/fairness');
  await expect(rows.first()).toBeVisible();
  await rows.first().click();
  await expect(page.getByText('None: whoever said the same got the same.')).toBeVisible();
});

test('levels and caps are written, marked by keys, and marks on the text come back to the student', async ({
  page,
  context,
}) => {
  test.setTimeout(180_000);
  await makeGroup(page, 'Levels');
  await pasteStudents(page, ['Ivanova, Daria']);
  const code = await joinCodeOf(page, 'Ivanova');
  await beginPaper(page, 'Collisions at sea');
  await page.getByRole('group', { name: 'New question' }).getByRole('button', { name: 'Open text' }).click();
  await page.getByLabel('Text of question 1').fill('Who must give way, when and where?');
  await page.getByLabel('Scheme line A').fill('units missing');
  await page.getByLabel('Points for line A').fill('-1');
  await page.getByRole('button', { name: 'Add a group with a cap' }).click();
  await page.getByLabel('Name of group 1').fill('The facts');
  await page.getByLabel('Most points of group 1').fill('2');
  for (const [letter, text, points] of [
    ['B', 'who', '2'],
    ['C', 'when', '1'],
  ] as const) {
    await page.getByRole('button', { name: 'Add a line to this group' }).click();
    await page.getByLabel(`Scheme line ${letter}`).fill(text);
    await page.getByLabel(`Points for line ${letter}`).fill(points);
  }
  await page.getByRole('button', { name: 'Add a criterion with levels' }).click();
  await page.getByLabel('Name of criterion 2').fill('Language');
  for (const [letter, text, points] of [
    ['D', 'can be followed', '1'],
    ['E', 'clear', '3'],
  ] as const) {
    await page.getByRole('button', { name: 'Add a level' }).click();
    await page.getByLabel(`Level ${letter}`).fill(text);
    await page.getByLabel(`Points for line ${letter}`).fill(points);
  }
  await expect(page.getByText('It can give 5 of')).toBeVisible();
  await page.getByLabel('Points for question 1').fill('5');
  await kept(page, /oints/);
  await givePaper(page, 'Levels');
  const student = await enterAs(context, code);
  await startPaper(student);
  await student.getByRole('textbox').fill('The power vessel gives way in the narrow channel.');
  await handIn(student);

  await stage(page, 'Mark');
  await expect(current(page)).toContainText('waits');
  // Two of the group make three, capped at two.
  for (const key of ['b', 'c']) await page.keyboard.press(key);
  await expect(current(page)).toContainText('2 / 5');
  await page.keyboard.press('e');
  await expect(current(page)).toContainText('5 / 5');
  await page.keyboard.press('d');
  await expect(current(page)).toContainText('3 / 5');
  await page.keyboard.press('a');
  await expect(current(page)).toContainText('2 / 5');
  // Points that the lines do not give are said to differ, and both are kept.
  await page.keyboard.press('4');
  await expect(page.getByText('The scheme lines give 2; the points given differ.')).toBeVisible();

  await page.keyboard.press('F9');
  await expect(page.getByRole('textbox', { name: /^Words to mark: “The”/ })).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowRight');
  await page.keyboard.press('s');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('w');
  await page.keyboard.type('which one, here?');
  await page.keyboard.press('Enter');
  await kept(page, 'Words written beside');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Tab');
  await page.keyboard.type('[First name], see https://rules.example/18.');
  await page.keyboard.press('Enter');
  // What was typed first is kept while the rest is typed: left is only once all of it is there.
  await expect.poll(() => storedComments(page)).toContain('https://rules.example/18.');
  await page.goto(page.url().replace(/mark.*/, 'mark'));
  await handBack(page);

  await seeResult(student);
  const answer = student.getByRole('region', { name: 'Question 1' });
  await expect(answer.locator('del')).toHaveText('power vessel');
  await expect(answer.getByRole('list', { name: 'Words of the marker' })).toContainText(
    'gives which one, here?',
  );
  await expect(answer).toContainText('Daria, see');
  await expect(answer.getByRole('link', { name: 'https://rules.example/18' })).toBeVisible();
  // The student's own words are as they were written.
  await expect(answer).toContainText(/The power vessel gives1? way in the narrow channel\./);
});

test('a wording is accepted into the key from marking, with what it does shown before, and taken back', async ({
  page,
}) => {
  await page.goto('/sittings/lights/mark?question=l7');
  const rows = page.getByRole('list', { name: 'Answers' }).locator('[data-row]');
  await rows.filter({ hasText: '112.5' }).first().click();
  const accept = page.getByRole('group', { name: 'Accept “112.5”' });
  await accept.getByRole('button', { name: 'Accept it for half…' }).click();
  await expect(accept.getByRole('status')).toContainText(/\d+ answers? of the 92 students/);
  await accept.getByRole('button', { name: 'Accept for 0.5' }).click();
  await expect(current(page)).toContainText('0.5 / 1');
  await expect(page.getByText(/112\.5 \(50%\)/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(current(page)).toContainText('0 / 1');
});

test('a late answer that is let count is put forward what an equal one has, and one key takes it', async ({
  page,
}) => {
  await opened(page, 't12');
  const rows = page.getByRole('list', { name: 'Answers' }).locator('[data-row]');
  const equal = rows.filter({ hasText: /Steer west of north\./ }).first();
  await equal.click();
  await page.keyboard.press('a');
  await expect(current(page)).toContainText('1 / 3');
  await page.goto('/sittings/tides/attempts/tides-student12');
  await page.getByRole('group', { name: 'Question 12' }).getByRole('button', { name: 'Accept' }).click();
  await page.getByRole('form', { name: 'Accept' }).getByRole('button', { name: 'Accept' }).click();
  await kept(page, '1 late answer counts');
  await opened(page, 't12');
  await equal.click();
  await expect(current(page)).toContainText(/1 waits .*like 1 A\?/s);
  await page.keyboard.press('=');
  await expect(current(page)).toContainText('1 / 3');
  await kept(page, 'like identical ones');
});

test('scripts stand in an order, two side by side, and the other papers of a student are a key away', async ({
  page,
}) => {
  await page.goto('/sittings/lights/scripts/student03');
  const margin = page.getByRole('complementary', { name: 'About the script' });
  await margin.getByRole('combobox', { name: 'Order' }).selectOption('lowest total first');
  await expect(margin.getByRole('heading', { name: /^Script \d+ of 92$/ })).toBeVisible();
  await margin.getByRole('combobox', { name: 'Order' }).selectOption('nearest to the pass line first');
  await margin.getByRole('textbox', { name: 'Pass line, percent' }).fill('50');
  await page.keyboard.press('Escape');
  const beside = margin.getByRole('combobox', { name: /^Beside it/ });
  await beside.selectOption({ index: 5 });
  const other = page.getByRole('region', { name: /^The answer of / });
  await expect(other.first()).toBeVisible();
  const count = await other.count();
  expect(count).toBe(await page.getByRole('region', { name: /^Question \d+$/ }).count());
  // It stays beside the next one.
  await page.getByRole('heading', { level: 2 }).first().click();
  await page.keyboard.press('ArrowRight');
  await expect(page).toHaveURL(/beside=/);
  await expect(other.first()).toBeVisible();
  await expect(margin.getByRole('link', { name: /^Mid-course exam/ })).toBeVisible();
  await page.keyboard.press('F6');
  const others = margin.getByRole('list').getByRole('link');
  await expect(others.first()).toBeFocused();
  await margin.getByRole('link', { name: /^Mid-course exam/ }).press('Enter');
  await expect(page).toHaveURL(/sittings\/tides\/scripts/);
});

test('everyone who chose an option gets a comment, whatever else they chose', async ({ page }) => {
  await page.goto('/sittings/lights/mark?question=l5');
  const margin = page.getByRole('complementary', { name: 'Question and scheme' });
  const who = margin.getByRole('combobox', { name: 'Who chose' });
  await who.selectOption({ index: 1 });
  const count = Number(/\((\d+)\)/.exec(await who.locator('option:checked').innerText())?.[1] ?? 0);
  await margin.getByRole('textbox', { name: 'Comment to all who chose it' }).fill('Look at the chart again.');
  await margin.getByRole('button', { name: new RegExp(`^Comment ${count} answer`) }).click();
  await kept(page, 'comment to all who chose');
  await expect(page.getByText('Look at the chart again.').first()).toBeVisible();
});
