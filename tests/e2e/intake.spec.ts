import { expect, test, type Page } from '@playwright/test';
import { kept } from './steps';

const rows = [
  'Name\tStudent number\tWhich stream runs out?\tHow far in 2 h at 6 kn?\tWhy do springs come late?',
  '\tKEY\tebb\t12\t',
  'Amara Okafor\t8101\tebb\t12\tThe sea needs a day or two to follow sun and moon',
  'Ines Duarte\t8102\tflood\t12.0\tThe water answers later than sun and moon pull together',
  'Kai Lindqvist\t8103\tebb\t24\t',
  'Otto Marsh\t8104\tflood\tsix\tI think that the moon is full then, and so it is high',
  'Ina Berg\t8105\tebb\t12\tSun and moon pull in one line and the water follows',
];

async function paste(page: Page, lines: readonly string[]) {
  await page.getByRole('textbox', { name: 'Rows of answers' }).fill(lines.join('\n'));
  await expect(page.getByRole('region', { name: 'Columns of the sheet' })).toBeVisible();
}

test('a sheet becomes a paper with its key, its answers are scored and wait to be marked; again only what is new; undone whole', async ({
  page,
}) => {
  await page.goto('/answers');
  await paste(page, rows);
  await page.getByRole('combobox', { name: 'Right answers are in' }).selectOption({ index: 1 });
  await expect(page.getByRole('combobox', { name: 'Kind of Which stream runs out?' })).toHaveValue(
    'oneChoice',
  );
  await expect(page.getByRole('combobox', { name: 'Kind of How far in 2 h at 6 kn?' })).toHaveValue('number');
  await expect(page.getByRole('combobox', { name: 'Kind of Why do springs come late?' })).toHaveValue(
    'openText',
  );
  // Points for several at once.
  await page.getByRole('checkbox', { name: 'All questions' }).check();
  await page.getByRole('textbox', { name: 'Points for those chosen' }).fill('2');
  await page.getByRole('button', { name: 'Set for 3 questions' }).click();
  await expect(page.getByRole('textbox', { name: 'Points of Which stream runs out?' })).toHaveValue('2');
  // A key that was typed holds over that of the row; one that can be none is said.
  const key = page.getByRole('textbox', { name: 'Key of How far in 2 h at 6 kn?' });
  await expect(key).toHaveAttribute('placeholder', '12');
  await key.fill('twelve');
  await expect(page.getByRole('alert').filter({ hasText: '“twelve” can’t be its key' })).toBeVisible();
  await key.fill('12');
  await expect(page.getByRole('alert').filter({ hasText: 'can’t be its key' })).toHaveCount(0);
  await page.getByRole('textbox', { name: 'Name of the sitting' }).fill('Form of week 9');
  await page.getByRole('textbox', { name: 'Name of the new group' }).fill('Week 9');
  await page.getByRole('button', { name: 'Import answers of 5 rows' }).click();
  await expect(page.getByText('Answers of 5 attempts imported.')).toBeVisible();
  // What the key scores is scored, the rest waits.
  await page.getByRole('link', { name: 'Mark what no key can score' }).click();
  await expect(page.getByRole('list', { name: 'Answers' })).toContainText('The sea needs a day or two');
  const sitting = /sittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
  await page.goto(`/sittings/${sitting}/export`);
  const row = page.getByRole('row', { name: /Duarte/ });
  await expect(row).toContainText('8102');

  // Brought in again with one more row and one changed answer.
  await page.goto(`/answers?sitting=${sitting}`);
  await paste(page, [
    ...rows.filter((line) => !line.includes('KEY')).map((line) => line.replace('24', '12')),
    'Nila Rao\t8106\tneither\t12\tlater',
  ]);
  const planned = page.getByRole('region', { name: 'Rows', exact: true });
  await expect(planned.getByRole('row', { name: /Kai Lindqvist/ })).toContainText('changed: 1 answer');
  await expect(planned.getByRole('row', { name: /Amara Okafor/ })).toContainText('as it is already');
  await expect(
    page
      .getByRole('alert')
      .filter({ hasText: 'row 7, Which stream runs out?: “neither” is none of the answers' }),
  ).toBeVisible();
  await page
    .getByRole('combobox', { name: /of people who aren’t on the desk/ })
    .selectOption({ label: 'students in Week 9' });
  await page.getByRole('button', { name: 'Import answers of 2 rows' }).click();
  await expect(page.getByText('Answers of 2 attempts imported.')).toBeVisible();
  await page.goto(`/sittings/${sitting}/run`);
  await expect(page.getByRole('row', { name: /Rao/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/^Undone: Answers of 2 attempts imported/)).toBeVisible();
  await page.goto(`/sittings/${sitting}/run`);
  await expect(page.getByRole('row', { name: /Lindqvist/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Rao/ })).toHaveCount(0);
});

test('into a paper that exists: columns find their questions, students are found, a bad file changes nothing', async ({
  page,
}) => {
  await page.goto('/answers?paper=paper-lights');
  await expect(page.getByRole('heading', { name: 'Import answers from a sheet' })).toBeVisible();
  await page.locator('input[type=file]').setInputFiles({
    name: 'answers.xlsx',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from('no workbook at all'),
  });
  await expect(page.getByRole('alert')).toContainText('answers.xlsx');
  await paste(page, ['Name\t1\t2', 'Elif Adler\tB\tA', 'Keahi Åberg\tA\tZ']);
  await expect(page.getByRole('combobox', { name: 'What 1 holds' })).not.toHaveValue(/nothing/);
  await expect(
    page.getByText(/2 rows of students on the desk; 2 of them told by the name alone/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Import answers of 2 rows' }).click();
  await expect(page.getByText('Answers of 2 attempts imported.')).toBeVisible();
  await kept(page, 'Answers of 2 attempts imported');
});

test('a long import is stopped: nothing of it is kept, and it can be made again', async ({ page }) => {
  await page.goto('/answers');
  const columns = Array.from({ length: 60 }, (_, at) => at);
  const lines = Array.from({ length: 4_000 }, (_, at) => [
    `Student ${at}`,
    String(100_000 + at),
    ...columns.map((column) => 'ABCD'[(at * 7 + column * 3) % 4] ?? ''),
  ]);
  const sheet = [['Name', 'Number', ...columns.map((column) => `Q${column + 1}`)], ...lines];
  await page.locator('input[type=file]').setInputFiles({
    name: 'many.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(sheet.map((row) => row.join(',')).join('\n')),
  });
  const button = page.getByRole('button', { name: 'Import answers of 4,000 rows' });
  await expect(button).toBeVisible();
  await page.getByRole('textbox', { name: 'Name of the new group' }).fill('Many');
  await button.click();
  await expect(page.getByText(/^\d+ of 4,000 rows$/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(button).toBeEnabled();
  await page.getByRole('combobox', { name: 'Kind of Q1', exact: true }).selectOption('shortText');
  await expect(page.getByRole('textbox', { name: 'Key of Q1', exact: true })).toBeVisible();
  await expect(button).toBeEnabled();
  await button.click();
  await expect(page.getByText('Answers of 4,000 attempts imported.')).toBeFocused();
  // One group and one sitting of it, not two.
  await page.goto('/groups');
  await expect(page.getByRole('link', { name: 'Many', exact: true })).toHaveCount(1);
});
