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
