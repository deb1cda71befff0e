import { strToU8, zipSync } from 'fflate';
import { expect, test } from '@playwright/test';
import { pdfText } from './pdf';
import { emptyDesk, enterAs, joinCodeOf, kept, makeGroup, pasteStudents, writeCell } from './steps';

test('a list brought in again says who is new, changed and gone, and does what was chosen', async ({
  page,
}) => {
  await makeGroup(page, 'Again');
  await pasteStudents(page, [
    'Name,Number,Email,Year',
    '"Okafor, Amara",1,a@example.org,1',
    '"Tran, Linh",2,,1',
  ]);
  await page.getByRole('button', { name: 'Add students' }).click();
  await page
    .getByLabel('List of students')
    .fill('Name,Number,Email,Year\n"Okafor, Amara",1,new@example.org,2\n"Ng, Wei",3,,1');
  const changes = page.getByRole('region', { name: 'What will change' });
  await expect(changes).toContainText('1 new, 1 changed, 0 unchanged, 1 in the group but not in the list');
  await expect(changes).toContainText(
    'Amara Okafor: email “a@example.org” becomes “new@example.org”, Year “1” becomes “2”',
  );
  await changes.getByLabel(/Remove 1 student who isn’t in the list/).check();
  await page.getByRole('button', { name: 'Import 2 students' }).click();
  await expect(page.getByRole('button', { name: 'Email of Amara Okafor: new@example.org' })).toBeVisible();
  await expect(page.getByRole('row', { name: /Linh Tran/ })).toHaveCount(0);
  // Own fields filter.
  await page.getByLabel('Show only').selectOption('Year: 2');
  await expect(page.getByText('1 student', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByLabel('Show only').selectOption('Everyone');
  await expect(page.getByRole('row', { name: /Linh Tran/ })).toBeVisible();
});

test('the table is written in with keys alone', async ({ page }) => {
  await makeGroup(page, 'Keyboard shortcuts');
  await pasteStudents(page, ['Name', '"Okafor, Amara"', '"Tran, Linh"']);
  await page.getByRole('button', { name: 'Family name of Amara Okafor: Okafor' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('2101');
  await page.keyboard.press('Enter');
  await page.keyboard.type('2102');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Number of Amara Okafor: 2101' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Number of Linh Tran: 2102' })).toBeFocused();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type('no address');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: /isn’t a valid email address/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Email of Linh Tran: empty' })).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('button', { name: 'Email of Amara Okafor: empty' })).toBeFocused();
});

test('students move, are archived and brought back, and doubles become one with a field of the teacher’s own', async ({
  page,
}) => {
  await makeGroup(page, 'Here');
  await pasteStudents(page, ['Name,Number', '"Okafor, Amara",1', '"Okafor, Amára",', '"Tran, Linh",2']);
  await makeGroup(page, 'There');
  await pasteStudents(page, ['Name', '"Ng, Wei"']);
  await page.goto(`${emptyDesk}/groups`);
  await page.getByRole('link', { name: 'Here', exact: true }).click();
  await page.getByLabel('Select Linh Tran').check();
  await page.getByLabel('Choose a group').selectOption('There');
  await page.getByRole('button', { name: 'Move to group' }).click();
  await kept(page, 'Linh Tran moved to There');
  await page
    .getByRole('button', { name: 'Amára Okafor and Amara Okafor 1' })
    .or(page.getByRole('button', { name: 'Amara Okafor 1 and Amára Okafor' }))
    .click();
  await page.getByRole('button', { name: 'Keep Amara Okafor, 1' }).click();
  await kept(page, /merged into Amara Okafor/);
  await page.getByLabel('Field name').fill('Period');
  await page.getByRole('button', { name: 'Add field' }).click();
  await writeCell(page, 'Period of Amara Okafor', 'third');
  await kept(page, 'Amara Okafor edited');
  await page.goto(`${emptyDesk}/groups/all`);
  await expect(page.getByRole('row', { name: /Linh Tran/ })).toContainText('There');
  await page.getByLabel('Show only').selectOption('Period: third');
  await page.getByLabel('Select Amara Okafor').check();
  await page.getByRole('button', { name: 'Archive', exact: true }).click();
  await page.getByLabel('Show only').selectOption('Everyone');
  await expect(page.getByRole('row', { name: /Amara Okafor/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Show archived students' }).click();
  await page.getByLabel('Select Amara Okafor').check();
  await page.getByRole('button', { name: 'Restore' }).click();
  await page.getByRole('button', { name: 'Show current students' }).click();
  await expect(page.getByRole('row', { name: /Amara Okafor/ })).toBeVisible();
});

test('classes come in from a school register, once seen', async ({ page }) => {
  const files = {
    'users.csv':
      'sourcedId,status,givenName,familyName,identifier,email\nu1,,Amara,Okafor,1,\nu2,,Linh,Tran,2,\nu3,,,,3,',
    'classes.csv': 'sourcedId,title\nc1,Navigation A\nc2,Navigation B',
    'enrollments.csv':
      'sourcedId,classSourcedId,userSourcedId,role\ne1,c1,u1,student\ne2,c2,u1,student\ne3,c2,u2,student',
    'orgs.csv': 'sourcedId\no1',
  };
  const zip = zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
  await page.goto(`${emptyDesk}/groups`);
  await page.getByRole('link', { name: 'Import from a school register' }).click();
  const choose = (bytes: Uint8Array) =>
    page
      .locator('input[type=file]')
      .setInputFiles({ name: 'register.zip', mimeType: 'application/zip', buffer: Buffer.from(bytes) });
  await choose(new Uint8Array([1, 2, 3]));
  await expect(page.getByRole('alert')).toContainText('It isn’t a zip file');
  await choose(zip);
  await expect(page.getByLabel('Navigation A: 1 student, 1 of them new; a new group')).toBeChecked();
  await expect(page.getByText('Left out: orgs.csv.')).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('row 4');
  await page.getByRole('button', { name: 'Import 2 classes' }).click();
  await page.getByRole('link', { name: 'Navigation B' }).click();
  await expect(page.getByRole('row', { name: /Amara Okafor/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Linh Tran/ })).toBeVisible();
});

test('join slips: a PDF with name, code and address of each, and new codes that close the old ones', async ({
  page,
  context,
}) => {
  await makeGroup(page, 'Slips');
  await pasteStudents(page, ['Name', '"Šimek, Żaneta"', '"Tran, Linh"']);
  const old = await joinCodeOf(page, 'Tran');
  await page.getByRole('link', { name: 'Print join slips' }).click();
  await expect(page.getByRole('img', { name: 'Page 1 of 1' })).toBeVisible({ timeout: 20_000 });
  const saved = async () => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save as PDF' }).click();
    return pdfText(await (await download).path());
  };
  const text = await saved();
  for (const words of ['Żaneta Šimek', 'Linh Tran', old, `Join at ${emptyDesk}/sit`])
    expect(text).toContain(words);
  await page.getByRole('button', { name: 'New codes for all' }).click();
  await kept(page, '2 students have new join codes');
  await expect(async () => expect(await saved()).not.toContain(old)).toPass({ timeout: 20_000 });
  const student = await context.newPage();
  await student.goto(`${emptyDesk}/sit?code=${old.replace(' ', '')}`);
  await student.getByRole('button', { name: 'Continue' }).click();
  await expect(student.getByText('Code not recognised.')).toBeVisible();
  await page.goBack();
  await enterAs(context, await joinCodeOf(page, 'Tran'));
});
