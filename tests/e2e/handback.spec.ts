import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { read, utils } from '@e965/xlsx';
import { unzipSync } from 'fflate';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { simpleParser } from 'mailparser';
import Papa from 'papaparse';
import { enterAs, kept } from './steps';

/** The join code of a student. @param name as in the register: "Eze, Priya" */
async function codeOf(page: Page, name: string): Promise<string> {
  await page.goto('/sittings/lights/run');
  await page.getByRole('rowheader', { name }).getByRole('button').click();
  return (await page.getByText(/^[2-9A-Z]{3} [2-9A-Z]{3}$/).textContent()) ?? '';
}

async function resultOf(page: Page, name: string): Promise<Page> {
  const student = await enterAs(page.context(), await codeOf(page, name), new URL(page.url()).origin);
  await student.setViewportSize({ width: 360, height: 740 });
  await student.getByRole('button', { name: 'See my result' }).first().click();
  await expect(student.getByRole('heading', { name: 'Quiz 1: lights and marks' })).toBeVisible();
  return student;
}

const saved = async (page: Page, button: string | RegExp) => {
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: button }).click();
  return (await saving).path();
};

test('a plan in stages: a draft until it is used, said in a sentence, mended, previewed, and seen as it says', async ({
  page,
}) => {
  await page.goto('/sittings/lights/hand-back');
  const plan = page.getByRole('region', { name: 'Plan' });
  const sentence = plan.getByRole('status');
  await expect(sentence).toContainText('Now students see their total');
  await page.getByRole('combobox', { name: 'Begin with a template' }).click();
  await page.getByRole('option', { name: 'Points first, the rest when I say so' }).click();
  await expect(sentence).toHaveText(
    /With this draft students see their total, their percentage and the points for each question\. Once you open it: also their own answers, .*the accepted answers/,
  );
  await expect(plan).toContainText('92 students still see what the plan before it lets out');
  // Two limits of which one never takes effect are said, and mended by a press.
  await plan.getByRole('button', { name: /^Stage 1/ }).click();
  const margin = page.getByRole('complementary', { name: 'Who sees what' });
  await margin.getByRole('checkbox', { name: 'Ends: never' }).check();
  await margin.getByLabel('Or after (days)').fill('400');
  await margin.getByLabel('Or after (days)').press('Tab');
  await expect(plan).toContainText('Its end date comes before its length is over.');
  await plan.getByRole('button', { name: 'Remove the length' }).click();
  await expect(plan).not.toContainText('Its end date comes before');
  await margin.getByRole('checkbox', { name: /^Ends at/ }).uncheck();

  const student = await resultOf(page, 'Eze, Priya');
  await expect(student.getByText('Accepted:').first()).toBeVisible();
  await page.goto('/sittings/lights/hand-back');
  await plan.getByRole('button', { name: 'Use this plan for 92 students' }).click();
  await kept(page, 'Plan changed for everyone');
  await student.reload();
  await expect(student.getByRole('region', { name: 'Question 1', exact: true })).toContainText(
    /[01] of 1 point/,
  );
  await expect(student.getByText('Accepted:')).toHaveCount(0);

  // The preview is the very packet, at any stage.
  await page.goto('/sittings/lights/preview');
  await page.getByRole('combobox', { name: 'Student' }).fill('Eze, Priya');
  await page.getByRole('option', { name: 'Eze, Priya' }).click();
  await expect(page.getByRole('region', { name: 'Question 1', exact: true })).toContainText(
    /[01] of 1 point/,
  );
  await expect(page.getByText('Accepted:')).toHaveCount(0);

  await page.goto('/sittings/lights/hand-back');
  await plan.getByRole('button', { name: /^Stage 2/ }).click();
  await page.getByRole('button', { name: 'Open this stage now' }).click();
  await student.reload();
  await expect(student.getByText('Accepted:').first()).toBeVisible();

  // One is held back with a reason, and sees nothing of it.
  await page.getByRole('checkbox', { name: 'Eze, Priya' }).check();
  await page.getByRole('button', { name: 'Hold back 1 result' }).click();
  await page.getByLabel('Why (only you see it)').fill('has to talk to me');
  await page.getByRole('button', { name: 'Hold back 1 result' }).click();
  await kept(page, 'Results of 1 student held back');
  await expect(page.getByRole('row', { name: /Eze, Priya/ })).toContainText('held back: has to talk to me');
  await student.reload();
  await expect(student.getByText('Nothing is handed back right now.')).toBeVisible();
});

test('while some may still sit the paper, every way of letting answers out asks for a yes to exactly that', async ({
  page,
}) => {
  await page.goto('/papers/paper-lights/give');
  await page.getByRole('checkbox', { name: /Monday evening/ }).check();
  await page.getByRole('button', { name: /^Give out to/ }).click();
  await page.waitForURL(/run$/);
  await page.goto('/sittings/lights/hand-back');
  const template = async (name: string) => {
    await page.getByRole('combobox', { name: 'Begin with a template' }).click();
    await page.getByRole('option', { name }).click();
  };
  const yes = page.getByRole('checkbox', { name: /^Yes, show .* 32 students may still sit this paper/ });
  const use = page.getByRole('button', { name: 'Use this plan for 92 students' });
  await template('Points first, the rest when I say so');
  await use.click();
  await kept(page, 'Plan changed for everyone');
  await page.getByRole('button', { name: /^Stage 2/ }).click();
  await expect(yes).toBeVisible();
  await expect(page.getByRole('button', { name: 'Open this stage now' })).toHaveCount(0);
  await yes.check();
  await expect(page.getByRole('button', { name: 'Open this stage now' })).toBeVisible();
  await template('Everything at once');
  await expect(use).toBeDisabled();
  await page.getByRole('button', { name: 'Wait until nobody can sit it' }).click();
  await expect(use).toBeEnabled();
});

test('a student answers again what was missed and asks about a mark; the teacher answers', async ({
  page,
}) => {
  await page.goto('/sittings/lights/hand-back');
  const asks = page.getByRole('checkbox', { name: 'Ask about a mark' });
  await asks.check();
  await kept(page, 'Plan changed');
  // The focus is still on the box.
  await page.keyboard.press('Control+z');
  await expect(asks).not.toBeChecked();
  await asks.check();
  await page.getByRole('checkbox', { name: 'Answer again what they missed' }).check();
  for (const name of ['the accepted answers', 'the scheme lines they met'])
    await page.getByRole('checkbox', { name }).uncheck();
  await page.getByRole('checkbox', { name: 'their points by topic' }).check();
  await page.getByRole('button', { name: 'Use this plan for 92 students' }).click();
  await kept(page, 'Plan changed for everyone');

  const student = await resultOf(page, 'Aziz, Omar');
  await expect(student.getByRole('table', { name: 'By topic' })).toBeVisible();
  // The map goes to a question by keys.
  await student.getByRole('navigation', { name: 'Questions' }).getByRole('button').first().focus();
  await student.keyboard.press('ArrowRight');
  await student.keyboard.press('Enter');
  const second = student.getByRole('region', { name: 'Question 2' });
  await expect(second).toBeFocused();
  await expect(second).toContainText('0 of 1 point');
  await second.getByRole('button', { name: 'Answer question 2 again' }).click();
  await second.getByRole('radio', { name: /West/ }).check();
  await second.getByRole('button', { name: 'Send this answer' }).click();
  await expect(second).toContainText('It won back 0.5 points.');
  await expect(second).toContainText('0.5 of 1 point');
  const third = student.getByRole('region', { name: 'Question 3' });
  await third.getByRole('button', { name: 'Ask about this mark' }).click();
  await third.getByLabel('What should your teacher look at?').fill('Is quick flashing not enough?');
  await third.getByRole('button', { name: 'Send question' }).click();
  await expect(third).toContainText('Your teacher hasn’t answered yet.');
  await expect(third.getByRole('button', { name: 'Ask about this mark' })).toHaveCount(0);

  await page.goto('/sittings/lights/afterwards');
  await expect(page.getByText('1 correction, 1 question about marks. 1 waits for you.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Corrections' })).toContainText('wins back 0.5 points');
  await page.getByLabel('Your answer to Aziz, Omar').fill('Say how often.');
  await page.getByRole('button', { name: 'Send answer' }).click();
  await expect(page.getByText('Nothing waits.')).toBeVisible();
  await student.reload();
  await expect(student.getByRole('region', { name: 'Question 3' })).toContainText('Say how often.');
});

test('a message with fields for each, saved as files that other programs read', async ({ page }) => {
  await page.goto('/sittings/lights/message');
  await page.getByRole('combobox', { name: 'To whom' }).click();
  await page.getByRole('option', { name: 'who have their result' }).click();
  await expect(page.getByText(/^92 students, \d+ without an email address/)).toBeVisible();
  await page.getByLabel('Message').fill('Dear {given name}, you have {total}. {link} {nonsense}');
  await expect(page.getByRole('alert')).toContainText('{nonsense} is not filled in');
  await expect(page.getByText('The message itself tells the total')).toBeVisible();
  await page.getByLabel('Message').fill('Dear {given name}, look: {link}');
  await page.getByLabel('Name for this wording').fill('Back');
  await page.getByRole('button', { name: 'Save wording' }).click();
  await expect(page.getByRole('button', { name: 'Use “Back”' })).toBeVisible();
  const preview = page.getByRole('region', { name: 'Preview' });
  await preview.getByRole('button', { name: 'Next' }).click();
  await expect(preview).toContainText('2 of 92');
  await expect(preview).toContainText(/Dear \S+, look: http.*\/sit\?code=[2-9A-Z]{6}/);
  await page.getByRole('button', { name: 'Put 92 messages in the outbox' }).click();
  await kept(page, '92 messages in the outbox');
  await page.goto('/outbox');
  const zip = unzipSync(new Uint8Array(readFileSync(await saved(page, 'Save 92 messages as files'))));
  expect(Object.keys(zip)).toHaveLength(92);
  const mail = await simpleParser(Buffer.from(Object.values(zip)[0] ?? []));
  expect(mail.subject).toBe('Quiz 1: lights and marks is back');
  expect(mail.text).toMatch(/^Dear .*code=[2-9A-Z]{6}/);
  await expect(page.getByText('0 messages waiting')).toBeVisible();
});

test('a mark book: totals step by step, a typed column by keys, a grade line moved, and the file', async ({
  page,
}) => {
  await page.goto('/mark-books/navigation');
  await expect(
    page.getByText(
      /^The total is made of Quizzes \(30%, the best 1 of 2\), Exam \(50%\) and Chart table \(20%\)/,
    ),
  ).toBeVisible();
  await expect(page.getByText('92 students', { exact: true })).toBeVisible();
  const adler = page.getByRole('row', { name: /Adler, Elif/ });
  // Tab comes to one cell, the first; arrow keys go on from there.
  await page
    .getByRole('region', { name: 'Mark book' })
    .getByRole('button', { name: 'how: settings of Total' })
    .focus();
  await page.keyboard.press('Tab');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { name: 'Åberg, Keahi' })).toBeVisible();
  // 0.3 × 31.1 % and 0.2 × 45 % over a half: 36.7 %, rounded once.
  await expect(adler.getByRole('button').last()).toHaveText('37%');
  await adler.getByRole('button').last().click();
  await expect(page.getByRole('heading', { name: 'Adler, Elif' })).toBeVisible();
  await expect(page.getByText('Total 37%')).toBeVisible();
  // Keys as in a sheet: left to the typed column, a number, Enter.
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.type('10');
  await page.keyboard.press('Enter');
  await expect(adler.getByRole('button').last()).toHaveText('59%');
  await page.getByRole('button', { name: 'Grade lines' }).click();
  const pass = page.getByRole('slider', { name: 'Line of grade pass' });
  await expect(pass).toHaveAttribute('aria-valuetext', 'from 50%');
  const row = page.getByRole('row').filter({ has: page.getByRole('textbox', { name: 'Grade 3' }) });
  const before = Number(await row.getByRole('cell').nth(2).textContent());
  const box = await pass.boundingBox();
  const spread = await page.getByRole('group', { name: /^Spread of/ }).boundingBox();
  if (!box || !spread) throw new Error('no line');
  await page.mouse.move(box.x + 12, box.y + 60);
  await page.mouse.down();
  await page.mouse.move(spread.x + spread.width * 0.3, box.y + 60, { steps: 5 });
  await page.mouse.up();
  await expect(pass).toHaveAttribute('aria-valuetext', 'from 30%');
  await pass.press('ArrowRight');
  await expect(pass).toHaveAttribute('aria-valuetext', 'from 30.5%');
  await expect
    .poll(async () => Number(await row.getByRole('cell').nth(2).textContent()))
    .toBeGreaterThan(before);
  const book = read(readFileSync(await saved(page, 'Save the mark book as XLSX')));
  const rows = utils.sheet_to_json<unknown[]>(book.Sheets[book.SheetNames[0] ?? ''] ?? {}, { header: 1 });
  expect(rows[0]?.slice(-2)).toEqual(['total (%)', 'grade']);
  expect(rows.find((each) => each[0] === 'Adler')?.slice(-2)).toEqual([59, 'pass']);
});

test('what is exported is read by others: grades with chosen columns, marked scripts as PDFs', async ({
  page,
}) => {
  await page.goto('/sittings/lights/export');
  await page.getByRole('checkbox', { name: 'email' }).uncheck();
  await page.getByRole('button', { name: 'Move grade up' }).click();
  await page.getByRole('radio', { name: 'CSV' }).check();
  await page.getByLabel('Between cells').selectOption('semicolon');
  await page.getByLabel('Numbers').selectOption('1,5');
  const text = readFileSync(await saved(page, 'Save 92 rows as CSV'), 'utf8');
  const { data } = Papa.parse<string[]>(text.slice(1).trimEnd(), { delimiter: ';' });
  expect(data[0]?.slice(0, 8)).toEqual([
    ...['family name', 'given name', 'number', 'group', 'total', 'out of', 'grade', 'percent'],
  ]);
  expect(data.find(([name, given]) => name === 'Aziz' && given === 'Omar')?.slice(4, 8)).toEqual([
    '5,25',
    '15',
    '',
    '35',
  ]);
  await page.reload();
  await expect(page.getByRole('checkbox', { name: 'email' })).not.toBeChecked();
  await page.getByLabel('What', { exact: true }).selectOption('Marked scripts (PDF)');
  await page.getByLabel('Group', { exact: true }).selectOption('Monday evening');
  const zip = unzipSync(new Uint8Array(readFileSync(await saved(page, /^Save \d+ PDFs in a zip$/))));
  const names = Object.keys(zip);
  expect(names.length).toBeGreaterThan(25);
  const one = zip[names.find((name) => name.includes('Adler')) ?? ''] ?? new Uint8Array();
  const pdf = await getDocument({ data: Uint8Array.from(one), verbosity: 0 }).promise;
  const { items } = await (await pdf.getPage(1)).getTextContent();
  const words = items.map((item) => ('str' in item ? item.str : '')).join(' ');
  expect(words).toContain('Elif Adler');
  expect(words).toContain('4.67 of 15 points');
});
