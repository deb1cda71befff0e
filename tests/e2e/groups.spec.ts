import * as XLSX from '@e965/xlsx';
import { expect, test } from '@playwright/test';
import { kept, makeGroup, writeCell } from './steps';

/** A workbook as an office program writes it, by a library of its own. */
const workbook = (bookType: 'xlsx' | 'ods'): Buffer => {
  const book = XLSX.utils.book_new();
  const rows = [
    ['Last name', 'First name', 'Student number', 'Mail'],
    ['Ng', 'Wei', 4101, 'wei.ng@example.org'],
    ['=1+1', 'Rosa', '04102', ''],
    ['', '', 4103, ''],
  ];
  XLSX.utils.book_append_sheet(book, XLSX.utils.aoa_to_sheet(rows), 'Students');
  return XLSX.write(book, { bookType, type: 'buffer' }) as Buffer;
};

for (const ending of ['xlsx', 'ods'] as const)
  test(`students come in from a workbook (${ending}), bad rows by line`, async ({ page }) => {
    await makeGroup(page, `From ${ending}`);
    await page.locator('input[type=file]').setInputFiles({
      name: `students.${ending}`,
      mimeType: 'application/octet-stream',
      buffer: workbook(ending),
    });
    await expect(page.getByRole('alert')).toContainText('row 4');
    await page.getByRole('button', { name: /^Import 2 valid rows/ }).click();
    const rows = page.getByRole('row');
    await expect(rows.filter({ hasText: 'NgWei' })).toContainText('4101');
    await expect(rows.filter({ hasText: '=1+1' })).toContainText('04102');
  });

test('a name that is longer than a name may be says so, and stays as it was typed', async ({ page }) => {
  await page.goto('/groups');
  const name = page.getByRole('textbox', { name: 'Group name' });
  await name.fill('Thursday '.repeat(60));
  await name.press('Enter');
  const refused = page.getByText('Not saved: The text is too long: shorten it to 500 characters');
  await expect(refused.first()).toBeVisible();
  await expect(name).toHaveValue('Thursday '.repeat(60));
  await name.fill('Thursday');
  await name.press('Enter');
  await expect(page.getByRole('heading', { name: 'Thursday', level: 1 })).toBeVisible();
});

test('a damaged workbook is said to be one, and nothing is changed', async ({ page }) => {
  await makeGroup(page, 'damaged');
  await page.locator('input[type=file]').setInputFiles({
    name: 'students.xlsx',
    mimeType: 'application/octet-stream',
    buffer: Buffer.from('PK broken'),
  });
  await expect(page.getByRole('alert')).toHaveText(
    'students.xlsx: It isn’t an XLSX or ODS workbook, or it is damaged. Nothing was changed.',
  );
  await expect(page.getByRole('button', { name: /^Import/ })).toHaveCount(0);
});

test('a quarter more time stands with a student, in every list and every sitting', async ({ page }) => {
  await page.goto('/groups/group1');
  await writeCell(page, 'Extra time % of Keahi Åberg', '400');
  await expect(page.getByRole('status').filter({ hasText: /1 to 300 percent/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await writeCell(page, 'Extra time % of Keahi Åberg', '25');
  await kept(page, 'Keahi Åberg edited');
  await page.goto('/sittings/rules/run');
  await page
    .getByRole('rowheader', { name: /Åberg, Keahi/ })
    .getByRole('button')
    .click();
  // A quarter of 45 minutes.
  await expect(page.getByText('11 min of it extra')).toBeVisible();
  await expect(page.getByText('25% extra time, wherever there is a time limit.')).toBeVisible();
  await page.getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('25% extra time, wherever')).toHaveCount(0);
});
