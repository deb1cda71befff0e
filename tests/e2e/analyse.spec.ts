import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import Papa from 'papaparse';
import { read, utils } from '@e965/xlsx';
import { pdfText } from './pdf';
import { enterAs, kept, stage } from './steps';

const right = 'Two all-round lights, red over green';

/** The join code of somebody who has their result back. @param name as in the register: "Eze, Priya" */
async function codeOf(page: Page, name: string): Promise<string> {
  await page.goto('/sittings/lights/run');
  await page.getByRole('rowheader', { name }).getByRole('button').click();
  return (await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
}

test('a wrong key is found, tried, repaired and undone; the student’s result says so', async ({
  page,
  context,
}) => {
  await page.goto('/sittings/lights/analyse');
  const margin = page.getByRole('complementary', { name: 'What to look at' });
  await margin.getByRole('button', { name: '11: Is the key wrong?' }).click();
  await expect(page.getByRole('button', { name: /^11 / })).toHaveAttribute('aria-expanded', 'true');
  const drawn = page.getByRole('row', { name: new RegExp(`of the points ${right}`) }).last();
  await expect(drawn).toContainText('58');
  // Who chose it is a press away.
  await drawn.getByRole('button', { name: /58 students/ }).click();
  const name = (await drawn.getByRole('link').first().textContent()) ?? '';
  await margin.getByRole('link', { name: 'Try a repair' }).click();

  await page.getByRole('button', { name: `“${right}” as the key instead` }).click();
  const effect = page.getByRole('region', { name: 'What it would do' });
  await expect(effect).toContainText('58 up, 13 down, 21 as before');
  await expect(effect).toContainText(/\d+ students? goe?s? to 70% or above/);
  await expect(effect).toContainText('92 have their results back; 71 of them would see another total');
  await page.getByRole('button', { name: 'Set beside others' }).click();
  await page.getByRole('checkbox', { name: /^Nobody loses by it/ }).check();
  await expect(effect).toContainText('58 up, 0 down');
  await page.getByRole('button', { name: 'Set beside others' }).click();
  await expect(page.getByRole('table').getByRole('row')).toHaveCount(3);
  // The first one is taken.
  await page.getByRole('button', { name: new RegExp(`^Key .*${right}$`) }).click();
  await page.getByRole('button', { name: 'Repair it' }).click();
  await expect(page.getByText('Say why in a few words')).toBeVisible();
  await page.getByLabel('Reason, which students read in their results').fill('The key was wrong');
  await page
    .getByRole('checkbox', { name: 'Also write to the 71 students who would see another total' })
    .check();
  await page.getByRole('button', { name: 'Repair it' }).click();
  await kept(page, /Question 11 repaired/);
  await expect(page.getByRole('heading', { name: 'Repaired before' })).toBeVisible();

  const student = await enterAs(context, await codeOf(page, name), new URL(page.url()).origin);
  await student.getByRole('button', { name: 'See my result' }).first().click();
  const question = student.getByRole('region', { name: 'Question 11' });
  await expect(question).toContainText('1 of 1 point');
  await expect(question).toContainText(
    /Rescored on .*: The key was wrong\. You had 0 points for it before\./,
  );
  // Undone whole, the messages too, and the student sees what there was.
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undone: Question 11 repaired/)).toBeVisible();
  await student.reload();
  await expect(question).toContainText('0 of 1 point');
  await expect(question).not.toContainText('Rescored');
});

test('a wording that many wrote is accepted from its finding; a question is dropped and counted again', async ({
  page,
}) => {
  await page.goto('/sittings/tides/analyse');
  await page.getByRole('button', { name: '14: Should this be accepted?' }).click();
  await page.getByRole('link', { name: 'Repair this question' }).click();
  await page.getByRole('button', { name: '“[2] falling” as right too' }).click();
  await expect(page.getByRole('region', { name: 'What it would do' })).toContainText('23 up, 0 down');
  await page.getByRole('radio', { name: /^It doesn’t count: the maximum gets smaller/ }).check();
  await expect(page.getByRole('region', { name: 'What it would do' })).toContainText('of 25');
  await page.getByLabel(/^Reason, which/).fill('Not taught');
  await page.getByRole('button', { name: 'Repair it' }).click();
  await kept(page, /Question 14 repaired: Doesn’t count/);
  await stage(page, 'Analyse');
  await expect(page.getByText('25', { exact: true }).first()).toBeVisible();
  await page.goto('/sittings/tides/repair?question=t14');
  // It begins as the question stands, and leads back.
  await expect(page.getByRole('radio', { name: /maximum gets smaller.*\(as now\)$/ })).toBeChecked();
  await expect(page.getByRole('heading', { name: 'Nothing is changed yet' })).toBeVisible();
  await page.getByRole('radio', { name: 'Score it by its key and its marks' }).check();
  await expect(page.getByRole('heading', { name: 'Scored by its key again' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'What it would do' })).toContainText('of 27');
  await page.getByRole('button', { name: 'Withdraw this repair' }).click();
  await kept(page, 'Repair of question 14 withdrawn');
  await expect(page.getByRole('heading', { name: 'Repaired before' })).toHaveCount(0);
});

test('the map is gone through by keys, and a line that is moved is kept', async ({ page }) => {
  await page.goto('/sittings/lights/analyse');
  const map = page.getByRole('listbox', { name: /^Questions on the map/ });
  await map.focus();
  await expect(map.getByRole('option', { selected: true })).toHaveText(
    /^question 11: 14% right, has the weak doing better than the strong\. Is the key wrong\?$/,
  );
  await page.keyboard.press('ArrowRight');
  await expect(map.getByRole('option', { selected: true })).toHaveText(/^question 9: 27% right/);
  await page.keyboard.press('Enter');
  const opened = page.getByRole('button', { name: /^9 You see a red light/ });
  await expect(opened).toBeFocused();
  await expect(opened).toHaveAttribute('aria-expanded', 'true');
  const line = page.getByRole('textbox', { name: 'Highlight students below, percent' });
  await line.fill('50');
  await line.press('Tab');
  await expect(page.getByRole('heading', { name: /students below 50%/ })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: /students below 50%/ })).toBeVisible();
});

test('with the class: by keys in one window, seen in another, without names, and as PDF', async ({
  page,
  context,
}) => {
  await page.goto('/sittings/lights/class?question=l3');
  const slide = page.getByRole('region', { name: 'Screen for the class' });
  await expect(slide).toContainText('What light character');
  const opening = context.waitForEvent('page');
  await page.getByRole('button', { name: 'Open the screen in a second window' }).click();
  const screen = await opening;
  const shown = screen.getByRole('region', { name: 'Screen for the class' });
  await expect(shown).toContainText('What light character');
  await page.getByRole('checkbox').first().check();
  await page.keyboard.press('ArrowRight');
  await expect(shown).toContainText('% of the points');
  // What is accepted is not given away before the key is shown.
  await expect(shown).not.toContainText('quick or very quick, uninterrupted');
  await page.keyboard.press('ArrowDown');
  await expect(shown.locator('[aria-current]')).toHaveCount(1);
  // The other window steers as well.
  await screen.bringToFront();
  await screen.keyboard.press('ArrowRight');
  await expect(slide).toContainText('Accepted: quick or very quick, uninterrupted');
  await screen.keyboard.press('PageDown');
  await expect(slide).not.toContainText('What light character');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save 11 questions as PDF' }).click();
  const text = await pdfText(await (await saving).path());
  expect(text).toContain('What light character does a north cardinal mark have?');
  expect(text).toContain('Accepted: quick or very quick');
});

test('a report is read by a PDF reader, its tables by other readers, and growth goes out', async ({
  page,
}) => {
  await page.goto('/sittings/lights/report');
  await page.getByLabel('Your own words, at the top').fill('Question 11 will be repaired.');
  await page.keyboard.press('Tab');
  await expect(page.getByRole('region', { name: 'Report' }).getByRole('img').first()).toBeVisible();
  const save = async (button: string | RegExp) => {
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: button }).click();
    return (await saving).path();
  };
  await expect
    .poll(async () => (await pdfText(await save('Save as PDF'))).includes('Question 11 will be repaired.'), {
      timeout: 80_000,
    })
    .toBe(true);
  const text = await pdfText(await save('Save as PDF'));
  expect(text).toContain('Reliability 0.72');
  expect(text).toContain('Is the key wrong?');
  expect(text).not.toContain('Eze, Priya');
  await page.getByRole('link', { name: 'Export the figures' }).click();
  await page.getByRole('radio', { name: 'CSV' }).check();
  const csv = Papa.parse<string[]>(readFileSync(await save('Save 11 rows as CSV'), 'utf8')).data;
  expect(csv[0]?.[0]?.replace('\uFEFF', '')).toBe('Question');
  expect(csv.filter((row) => row.length > 1)).toHaveLength(12);
  await page.getByLabel('What', { exact: true }).selectOption('Figures of answers');
  for (const as of ['XLSX', 'ODS']) {
    await page.getByRole('radio', { name: as }).check();
    const saving = page.waitForEvent('download');
    await page.getByRole('button', { name: new RegExp(`^Save \\d+ rows as ${as}$`) }).click();
    const book = read(readFileSync(await (await saving).path()));
    const rows = utils.sheet_to_json<unknown[]>(book.Sheets[book.SheetNames[0] ?? ''] ?? {}, { header: 1 });
    expect(rows.some((row) => row[1] === right && row[3] === 58)).toBe(true);
  }
  await page.goto('/sittings/tides/growth');
  await expect(page.getByText(/^The same 92 students went from \d+% to \d+%/)).toBeVisible();
  const growth = Papa.parse<string[]>(readFileSync(await save('Save 92 students as CSV'), 'utf8')).data;
  expect(growth.filter(([name]) => name)).toHaveLength(93);
});
