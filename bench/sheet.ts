import { launched, pressedUntil, row } from './measure';

/** A sheet of 10,000 students and 100 questions: understood, and kept, in the browser. */

const base = process.argv[2] ?? 'http://localhost:4390';
const students = Number(process.argv[3] ?? 10_000);
const questions = 100;

const browser = await launched('--enable-precise-memory-info');
try {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, locale: 'en-GB' });
  context.setDefaultTimeout(240_000);
  const page = await context.newPage();
  await page.goto(`${base}/answers`);
  await page.getByRole('textbox', { name: 'Rows of answers' }).waitFor();
  const name = `${students.toLocaleString('en')} × ${questions}`;
  let began = Date.now();
  await page.locator('input[type=file]').setInputFiles({
    name: 'answers.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(sheet()),
  });
  const button = page.getByRole('button', {
    name: `Import answers of ${students.toLocaleString('en')} rows`,
  });
  await button.waitFor();
  row(`a sheet of ${name} read and understood`, `${((Date.now() - began) / 1000).toFixed(1)} s`);
  await page.getByRole('textbox', { name: 'Name of the sitting' }).fill('A large one');
  await page.getByRole('textbox', { name: 'Name of the new group' }).fill('All');
  await page.locator('button:enabled', { hasText: 'Import answers of' }).waitFor();
  const ms = await pressedUntil(button, 'attempts imported.');
  row(`a sheet of ${name} kept, from the press (wanted: 10 s)`, `${(ms / 1000).toFixed(1)} s`);
  began = Date.now();
  await page.keyboard.press('Control+z');
  await page.getByText(/^Undone: Answers of/).waitFor();
  row(`the same undone whole`, `${((Date.now() - began) / 1000).toFixed(1)} s`);
} finally {
  await browser.close();
}

/** Picks of four letters, differently by question and row. */
function sheet(): string {
  const rows = [['Name', 'Number', ...Array.from({ length: questions }, (_, at) => `Q${at + 1}`)].join(',')];
  for (let student = 0; student < students; student++)
    rows.push(
      [
        `Student ${student}`,
        String(100_000 + student),
        ...Array.from({ length: questions }, (_, at) => 'ABCD'[(student * 7 + at * 3 + (student >> 3)) % 4]),
      ].join(','),
    );
  return rows.join('\n');
}
