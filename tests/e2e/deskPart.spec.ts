import { expect, test, type Page } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { emptyDesk, kept } from './steps';

/** One sitting is taken out of one desk and into another. */

const exam = 'Mid-course exam: tides, passage and compass';

async function chooseFile(page: Page, path: string): Promise<void> {
  const choosing = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Choose backup file' }).click();
  await (await choosing).setFiles(path);
}

test('one sitting goes to another desk, comes a second time as the same, and once it was changed is asked about', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.goto('/backup');
  await page.getByRole('combobox', { name: 'Course or sitting' }).click();
  await page.getByRole('option', { name: new RegExp(`^${exam}`) }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save this part' }).click();
  const file = join(mkdtempSync(join(tmpdir(), 'gribbet-part-')), 'part.zip');
  await (await coming).saveAs(file);

  // Another desk, on which there is nothing of it.
  await page.goto(`${emptyDesk}/backup`);
  await chooseFile(page, file);
  await expect(page.getByRole('heading', { name: `Take in: ${exam}` })).toBeFocused();
  const panel = page.getByRole('region', { name: `Take in: ${exam}` });
  await expect(panel).toContainText('New on this desk: 1 sitting, 1 paper, 3 groups, and 92 students.');
  await panel.getByRole('button', { name: 'Take it into this desk' }).click();
  await expect(page.getByText(`${exam} is on this desk now`)).toBeVisible();
  await page.goto(emptyDesk);
  await expect(page.getByRole('heading', { name: exam })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Run all 92 handed in' })).toBeVisible();

  // Somebody changes a student there; the file comes once more.
  await page.goto(`${emptyDesk}/backup`);
  await chooseFile(page, file);
  await expect(panel).toContainText(
    'Here already and the same: 1 sitting, 1 paper, 3 groups, and 92 students.',
  );
  await panel.getByRole('button', { name: 'Cancel' }).click();
  await expect(panel).toBeHidden();
  await page.goto(`${emptyDesk}/sittings/tides/run`);
  await page.getByRole('link', { name: /^Write/ }).click();
  await page.getByRole('textbox', { name: 'Title', exact: true }).fill('Another title');
  await kept(page, /Title/);
  await page.goto(`${emptyDesk}/backup`);
  await chooseFile(page, file);
  await expect(
    panel.getByRole('heading', { name: '1 paper is not the same here as in the file' }),
  ).toBeVisible();
  await expect(panel.getByRole('combobox', { name: /here: Another title/ })).toHaveValue('both');
  await panel.getByRole('button', { name: 'Take it into this desk' }).click();
  await expect(page.getByText(`${exam} is on this desk now`)).toBeVisible();
  await page.goto(emptyDesk);
  await expect(page.getByText(/\(from the file\)/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText(/\(from the file\)/)).toHaveCount(0);
});
