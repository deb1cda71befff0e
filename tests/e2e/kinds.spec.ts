import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import {
  beginPaper,
  enterAs,
  givePaper,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  stage,
  startPaper,
  storedPaper,
} from './steps';

/** Types into the field that has this name, reached by keys only from where the cursor is. */
async function tabTo(page: Page, name: RegExp) {
  for (let presses = 0; presses < 60; presses++) {
    await page.keyboard.press('Tab');
    const label = await page.evaluate(() => {
      const field = document.activeElement;
      const by = field?.getAttribute('aria-label');
      const labels =
        field instanceof HTMLInputElement ||
        field instanceof HTMLTextAreaElement ||
        field instanceof HTMLSelectElement
          ? [...(field.labels ?? [])]
          : [];
      return by ?? labels[0]?.textContent ?? field?.textContent ?? '';
    });
    if (name.test(label)) return;
  }
  throw new Error(`no ${name} within reach of Tab`);
}

/** The same, from here backwards. */
async function tabBackTo(page: Page, name: RegExp) {
  for (let presses = 0; presses < 60; presses++) {
    await page.keyboard.press('Shift+Tab');
    const label = await page.evaluate(() => document.activeElement?.getAttribute('aria-label') ?? '');
    if (name.test(label)) return;
  }
  throw new Error(`no ${name} behind`);
}

async function press(page: Page, name: RegExp) {
  await tabTo(page, name);
  await page.keyboard.press('Enter');
}

async function write(page: Page, name: RegExp, text: string) {
  await tabTo(page, name);
  await page.keyboard.type(text);
}

/** A new question of a kind, by its button at the end; the cursor is in its text afterwards. */
async function begin(page: Page, kind: string, stem: string) {
  await page.keyboard.press('Escape');
  await page
    .getByRole('group', { name: 'New question' })
    .getByRole('button', { name: kind, exact: true })
    .focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: /^Text of question/ })).toBeFocused();
  await page.keyboard.type(stem);
}

test('one of each kind is written by keys, sat on a phone and scored', async ({ page }) => {
  test.setTimeout(240_000);
  await makeGroup(page, 'Kinds');
  await pasteStudents(page, ['Name', 'Tran, Linh']);
  const code = await joinCodeOf(page, 'Tran');
  await beginPaper(page, 'Every kind');

  await begin(page, 'True or false', 'A stern light is ');
  await page.keyboard.press('Control+b');
  await page.keyboard.type('white');
  await tabTo(page, /^True is right/);
  await page.keyboard.press('Space');

  await begin(page, 'Number', '6 knots for two and a half hours: how far?');
  await tabTo(page, /^Tolerance type/);
  await page.keyboard.type('plus');
  await write(page, /^Value of accepted number 1/, '15');
  await write(page, /^Plus or minus/, '0,5');
  await tabTo(page, /^Unit/);
  await page.keyboard.type('The unit is r');
  await write(page, /^Names for unit 1/, 'nm, nautical miles');

  await begin(page, 'Gaps in a text', 'Fill in.');
  await write(page, /^The text/, 'The incoming stream is the flood');
  await page.keyboard.press('Control+Shift+ArrowLeft');
  await press(page, /^Add a gap/);
  await expect(page.getByLabel('Gap 1, accepted answer 1', { exact: true })).toHaveValue('flood');

  await begin(page, 'Matching', 'Which side?');
  await write(page, /^Partner A/, 'red');
  await write(page, /^Partner B/, 'green');
  for (const letter of ['C', 'C']) await press(page, new RegExp(`^Remove partner ${letter}`));
  await write(page, /^Item 1$/, 'port');
  await tabTo(page, /^Item 1 belongs/);
  await page.keyboard.type('A');
  await write(page, /^Item 2$/, 'starboard');
  await tabTo(page, /^Item 2 belongs/);
  await page.keyboard.type('B');
  for (const item of ['3', '3']) await press(page, new RegExp(`^Remove item ${item}`));

  await begin(page, 'Ordering', 'From low to high');
  for (const [index, text] of ['neap range', 'mean range', 'spring range'].entries())
    await write(page, new RegExp(`^Item ${index + 1}$`), text);
  await press(page, /^Remove item 4/);

  await begin(page, 'Sorting into categories', 'Day or night?');
  await write(page, /^Category A/, 'day');
  await write(page, /^Category B/, 'night');
  for (const [index, text] of ['cone', 'light'].entries()) {
    await write(page, new RegExp(`^Item ${index + 1}$`), text);
    await tabTo(page, new RegExp(`^Item ${index + 1} belongs`));
    await page.keyboard.type(index === 0 ? 'A' : 'B');
  }
  for (let left = 4; left > 0; left--) await press(page, /^Remove item 3/);

  await begin(page, 'One choice', 'Red light?');
  await write(page, /^Option A$/, 'port');
  await write(page, /^Option B$/, 'starboard');
  for (let left = 2; left > 0; left--) await press(page, /^Remove option C/);
  await tabBackTo(page, /^Option A$/);
  await page.keyboard.press('Alt+1');

  await begin(page, 'Several choices', 'At springs?');
  for (const [index, text] of ['larger range', 'faster streams', 'neither'].entries())
    await write(page, new RegExp(`^Option ${'ABC'.charAt(index)}$`), text);
  for (let left = 2; left > 0; left--) await press(page, /^Remove option D/);
  await tabBackTo(page, /^Option A$/);
  await page.keyboard.press('Alt+1');
  await page.keyboard.press('Alt+2');

  await begin(page, 'Short text', 'The stream that goes out?');
  await write(page, /^Accepted answer 1$/, 'ebb');

  for (const kind of ['Open text', 'Working', 'File']) {
    await begin(page, kind, `${kind}: explain the twelfths.`);
    await write(page, /^Scheme line A$/, 'one, two, three');
    await write(page, /^Points for line A$/, '3');
  }

  await page.keyboard.press('Escape');
  await expect(page.getByText('Nothing to fix')).toBeVisible();
  await page.getByRole('link', { name: 'Preview as a student' }).click();
  await expect(page.getByRole('region', { name: /^Question \d+$/ })).toHaveCount(12);
  await page.goBack();
  await givePaper(page, 'Kinds');

  const student = await enterAs(page.context(), code);
  await student.setViewportSize({ width: 360, height: 740 });
  await startPaper(student);
  const question = (number: number) =>
    student.getByRole('region', { name: `Question ${number}`, exact: true });
  await expect(question(1).locator('strong', { hasText: 'white' })).toBeVisible();
  await question(1).getByRole('radio', { name: /True/ }).check();
  await question(2).getByRole('textbox').fill('15,2 nautical miles');
  await expect(question(2).getByText('Read as 15.2 nautical miles')).toBeVisible();
  await question(3).getByRole('textbox', { name: 'Gap 1' }).fill('Flood');
  await question(4).getByLabel('port').selectOption('red');
  await question(4).getByLabel('starboard').selectOption('red');
  // By keys, as a screen reader user would: each item one place up until it is where it belongs.
  for (const text of ['neap range', 'mean range']) {
    const wanted = text === 'neap range' ? 1 : 2;
    for (let presses = 0; presses < 3; presses++) {
      const rows = await question(5).getByRole('listitem').allTextContents();
      if (rows[wanted - 1]?.includes(text)) break;
      await question(5)
        .getByRole('button', { name: `Put ${text} earlier` })
        .press('Enter');
    }
  }
  const keep = question(5).getByRole('button', { name: 'They are already in order' });
  if (await keep.isVisible()) await keep.press('Enter');
  await question(6).getByLabel('cone').selectOption('day');
  await question(6).getByLabel('light').selectOption('night');
  await question(7).getByRole('radio', { name: /port/ }).check();
  for (const name of [/larger/, /faster/]) await question(8).getByRole('checkbox', { name }).check();
  await question(9).getByRole('textbox').fill('EBB');
  await question(10).getByRole('textbox').fill('1, 2, 3, 3, 2, 1');
  await question(11).getByRole('button', { name: 'in words' }).press('Enter');
  await question(11).getByRole('textbox', { name: 'Working in words' }).fill('Half in the two middle hours');
  await question(12)
    .getByLabel(/^Add a picture or PDF/)
    .setInputFiles({ name: 'twelfths.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4') });
  await expect(question(12).getByRole('link', { name: /twelfths\.pdf/ })).toBeVisible();
  expect(await student.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  await expect(student.getByText('12 of 12 answered')).toBeVisible();
  await handIn(student);

  await stage(page, 'Mark');
  for (const number of [10, 11, 12]) {
    await expect(page.getByRole('heading', { name: new RegExp(`^Question ${number}, `) })).toBeVisible();
    await page.keyboard.press('3');
    await expect(page.getByLabel('Points for the current answers')).toHaveValue('3');
    if (number < 12) await page.keyboard.press('Enter');
  }
  // 1 + 1 + 2 + half of 2 + 2 + 2 points, 1 + 2 + 1 for the next three, and 3 by hand for each of the last.
  await stage(page, 'Hand back');
  await expect(page.getByRole('row', { name: /Tran, Linh/ })).toContainText('22 / 23');
});

test('parts draw for each student, many are changed at once, and the paper is printed', async ({ page }) => {
  await page.goto('/papers/paper-tides');
  const margin = page.getByRole('complementary');
  await page.getByRole('button', { name: 'Open question 9:' }).click();
  await page.getByRole('button', { name: 'Add a part' }).click();
  await page.keyboard.press('Escape');
  await page.getByLabel('Title of part 1').fill('Open questions');
  await page.getByLabel('Draw questions of part 1 at random').check();
  await page.getByLabel('How many questions of part 1 each student gets').fill('2');
  await expect(page.getByText('of 5, drawn at random')).toBeVisible();
  await expect(margin.getByText('in 11 questions')).toBeVisible();
  await page.getByLabel('Start part 1 on a new page when printed').check();

  await page.getByRole('button', { name: 'Edit several questions' }).click();
  for (const number of [1, 2, 3]) await page.getByLabel(`Select question ${number}`, { exact: true }).check();
  await expect(margin.getByRole('heading', { name: '3 questions selected' })).toBeVisible();
  await page.getByRole('button', { name: '% by key, rest for working' }).click();
  await kept(page, 'Working asked for in 3 questions');
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText(/with working/)).toHaveCount(3);

  await page.goto('/papers/paper-tides/print');
  await expect(page.getByRole('article', { name: 'The paper with room for answers' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('banner')).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  const pages = ((await page.pdf({ format: 'A4' })).toString('latin1').match(/\/Type\s*\/Page\b/g) ?? [])
    .length;
  expect(pages).toBeGreaterThan(1);
  await page.emulateMedia({ media: 'screen' });
  await expect(page.getByRole('article')).not.toContainText('Say the row aloud');
  await page.getByRole('radio', { name: /^The key/ }).check();
  await expect(page.getByRole('article')).toContainText('3/12');
});

test('an option is made right and points are reached by keys, from within the text', async ({ page }) => {
  await page.goto('/papers/paper-passage');
  await page.getByRole('button', { name: 'Open question 8:' }).click();
  await expect(page.getByRole('textbox', { name: 'Text of question 8' })).toBeFocused();
  await page.keyboard.press('Alt+3');
  await expect(page.getByRole('radio', { name: 'C is right' })).toBeChecked();
  await page.keyboard.press('Alt+p');
  await expect(page.getByLabel('Points for question 8')).toBeFocused();
});

test('maths and a list are written into a question, and a student sees them set', async ({ page }) => {
  await page.goto('/papers/paper-passage');
  await page.getByRole('button', { name: 'Open question 2:' }).click();
  const stem = page.getByRole('textbox', { name: 'Text of question 2' });
  await stem.click();
  await page.keyboard.press('Control+End');
  await page.getByRole('button', { name: 'Maths', exact: true }).click();
  await page.getByRole('textbox', { name: 'Maths in TeX' }).fill('d = v \\cdot t');
  await page.getByRole('button', { name: 'Insert in the text' }).click();
  await expect(stem.locator('math')).toHaveCount(1);
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page
    .getByRole('toolbar', { name: 'Markup' })
    .getByRole('button', { name: /bullet list/i })
    .click();
  await page.keyboard.type('<b>plain</b>');
  await expect(stem.getByRole('listitem')).toHaveText('<b>plain</b>');
  // Typing is kept a moment after the last key.
  await expect.poll(() => storedPaper(page, 'paper-passage')).toContain('<b>plain</b>');
  await page.goto('/papers/paper-passage/look');
  const question = page.getByRole('region', { name: 'Question 2', exact: true });
  await expect(question.locator('math')).toHaveCount(1);
  await expect(question.getByRole('listitem')).toHaveText('<b>plain</b>');
});

test('questions come in from a sheet, bad rows by line, and go out again', async ({ page }) => {
  await beginPaper(page, 'From a sheet');
  await page.getByRole('link', { name: 'Import and export' }).click();
  await page
    .getByLabel('Rows of questions')
    .fill(
      'Question,A,B,Key,Points\nRed light?,port,starboard,A,1\nGreen light?,port,starboard,E,1\nHow many feet in a fathom?,,,6,2',
    );
  await expect(page.getByRole('alert')).toContainText('row 3: the key “E” doesn’t match any option');
  await expect(page.getByRole('row', { name: /How many feet/ })).toContainText('Number');
  await page.getByRole('button', { name: 'Import 2 valid rows' }).click();
  await expect(page.getByRole('button', { name: 'Open question 2:' })).toContainText('fathom');
  await page.getByRole('link', { name: 'Import and export' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as XLSX' }).click();
  const path = await (await saving).path();
  await page.locator('input[type=file]').setInputFiles({
    name: 'again.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: readFileSync(path),
  });
  await page.getByRole('button', { name: 'Import 2 questions' }).click();
  await expect(page.getByRole('button', { name: 'Open question 4:' })).toContainText('fathom');
});

test('a paper filled in by the teacher is scored on the spot and becomes the key', async ({ page }) => {
  await page.goto('/papers/paper-passage/look');
  const first = page.getByRole('region', { name: 'Question 1', exact: true });
  await first.getByRole('radio', { name: /False/ }).check();
  await page.getByLabel('Score these answers').check();
  await expect(first).toContainText('0 of 1');
  await expect(first).toContainText('latitude scale');
  await page.getByLabel('with comments').uncheck();
  await expect(first).not.toContainText('latitude scale');
  await page.getByRole('radio', { name: 'On a phone' }).check();
  await page.getByRole('button', { name: 'Make this the key' }).click();
  await kept(page, 'Key of 1 question set');
  await expect(first).toContainText('1 of 1');
});

test('a question is begun in the bank, changed there, and found by its points', async ({ page }) => {
  await page.goto('/bank');
  await page
    .getByRole('group', { name: 'New question' })
    .getByRole('button', { name: 'True or false' })
    .click();
  await expect(page).toHaveURL(/\/bank\/.+/);
  await page.getByRole('textbox', { name: 'Text of this question' }).fill('A sounding is a depth.');
  await page.getByRole('radio', { name: 'True is right' }).check();
  await page.getByLabel('Points for this question').fill('7');
  await expect(page.getByRole('heading', { name: 'Nothing to fix' })).toBeVisible();
  await kept(page, 'Points for this question changed');
  await page.getByRole('link', { name: 'Back to the bank' }).click();
  await page.getByLabel('Points', { exact: true }).selectOption('7 points');
  await page.getByRole('button', { name: 'A sounding is a depth.' }).click();
  await expect(page.getByRole('heading', { name: 'Not used in any paper' })).toBeVisible();
  await page.getByLabel('Points', { exact: true }).selectOption('any points');
  await page.getByLabel('Facility').selectOption('hard, below 40%');
  const figures = await page
    .getByRole('region', { name: 'Questions' })
    .getByRole('row')
    .locator('td:nth-child(4)')
    .allTextContents();
  expect(figures.length).toBeGreaterThan(0);
  for (const figure of figures) expect(Number.parseInt(figure)).toBeLessThan(40);
});

test('a question is found in the bank, taken into a paper, changed and put back', async ({ page }) => {
  await page.goto('/bank');
  await page.getByLabel('Search questions, keys and tags').fill('isolated danger night');
  const questions = page.getByRole('region', { name: 'Questions' });
  await expect(questions.getByRole('row')).toHaveCount(2);
  await expect(questions.getByRole('row').nth(1)).toContainText('%');
  await questions.getByRole('button', { name: /isolated danger mark show/ }).click();
  await page.getByLabel('Paper to add it to').selectOption('Quiz 4: planning a passage');
  await page.getByRole('button', { name: 'Add to paper' }).click();
  await expect(page.getByRole('heading', { name: 'In 2 papers' })).toBeVisible();
  await page.getByRole('link', { name: 'Quiz 4: planning a passage' }).click();
  await page.getByRole('button', { name: 'Open question 11:' }).click();
  await expect(page.getByRole('heading', { name: 'Same as in the bank' })).toBeVisible();
  await page.getByLabel('Points for question 11').fill('3');
  await page.getByRole('button', { name: 'Update the bank' }).click();
  await expect(page.getByRole('heading', { name: 'Same as in the bank' })).toBeVisible();
  await page.getByRole('button', { name: 'Unlink' }).click();
  await expect(page.getByRole('heading', { name: 'Not in the bank' })).toBeVisible();
  await page.goto('/bank');
  await page.getByLabel('Show').selectOption('in the bank');
  await expect(questions.getByRole('row', { name: /isolated danger/ })).toContainText('3');
});
