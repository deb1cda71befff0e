import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';

test('all that is held about a student is saved as a page, and the student is forgotten for good', async ({
  page,
}) => {
  await page.goto('/students/student64');
  const heading = page.getByRole('heading', { level: 1 });
  await expect(heading).toBeVisible();
  const name = (await heading.textContent()) ?? '';
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save all data about this student' }).click(),
  ]);
  const html = readFileSync(await saved.path(), 'utf8');
  expect(saved.suggestedFilename()).toMatch(/\.html$/);
  expect(html).toContain(`<h1>${name}</h1>`);
  expect(html).toContain('Attempt 1');

  await page.getByRole('button', { name: 'Forget this student…' }).click();
  const asked = page.getByRole('dialog', { name: `Forget ${name} permanently?` });
  await expect(asked.getByText(/^This deletes the name.*\d+ attempts? in \d+ sittings?/)).toBeVisible();
  // What does no harm has the focus.
  await expect(asked.getByRole('button', { name: 'Cancel' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(asked).toBeHidden();
  await expect(heading).toHaveText(name);

  await page.getByRole('button', { name: 'Forget this student…' }).click();
  await asked.getByRole('button', { name: 'Forget permanently' }).click();
  await page.waitForURL('**/groups');
  await page.goto('/students/student64');
  await expect(page.getByRole('heading', { name: 'Student not found' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('textbox', { name: 'Search' }).fill(name.split(' ').at(-1) ?? '');
  await expect(page.getByText(name)).toBeHidden();
  await page.goto('/sittings/lights/run');
  await expect(page.getByRole('table')).toBeVisible();
  await expect(page.getByText(name.split(' ').reverse().join(', '))).toBeHidden();
});

test('answers are kept as long as the teacher sets, deleted when asked, and back until a backup is made', async ({
  page,
}) => {
  await page.goto('/groups/group1');
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.goto('/backup');
  await page.getByRole('link', { name: 'See what is kept where' }).click();
  const row = page.getByRole('row', { name: /^No course/ });
  await expect(row).toContainText('227 attempts in 4 sittings');
  await row.getByRole('combobox').selectOption('6 months');
  await expect(row.getByRole('cell').nth(3)).toHaveText(/^\w+ \d+, \d{4}$/);

  const remove = async () => {
    await row.getByRole('button', { name: 'Delete answers…' }).click();
    const asked = page.getByRole('dialog', { name: 'Delete the answers of sittings without a course?' });
    await expect(asked.getByText(/^A sitting is open until (today|tomorrow)/)).toBeVisible();
    await expect(asked.getByRole('button', { name: 'Cancel' })).toBeFocused();
    await asked.getByRole('button', { name: 'Delete 227 attempts' }).click();
    await expect(row).toContainText('0 attempts in 4 sittings');
  };
  await remove();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(row).toContainText('227 attempts in 4 sittings');

  await remove();
  const files = page.getByRole('row', { name: /^This browser: your desk/ });
  await expect(files).toContainText('122 pictures and files');
  await page.goto('/backup');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save a backup' }).click();
  await saving;
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeHidden();
  await page.goto('/kept');
  await expect(row).toContainText('0 attempts in 4 sittings');
  await expect(files).not.toContainText('122 pictures and files');
});
