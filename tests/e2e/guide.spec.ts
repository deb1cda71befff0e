import { expect, test } from '@playwright/test';

test('help leads from each page to its part of the guide, and the guide from part to part', async ({
  page,
}) => {
  await page.goto('/sittings/tides/hand-back');
  await expect(page.getByRole('heading', { name: /^Mid-course exam/, level: 1 })).toBeVisible();
  await page.keyboard.press('?');
  const help = page.getByRole('dialog', { name: 'Help' });
  await help.getByRole('link', { name: 'Read about this page in the guide' }).click();
  await expect(page).toHaveURL(/\/guide\/hand-back#the-plan$/);
  await expect(page.getByRole('heading', { name: 'The plan', level: 2 })).toBeFocused();
  await expect(page).toHaveTitle('Hand back · Guide · Gribbet');
  const pages = page.getByRole('navigation', { name: 'Pages of the guide' });
  await expect(pages.getByRole('link', { name: 'Hand back' })).toHaveAttribute('aria-current', 'page');
  // Its pictures are there.
  const picture = page.getByRole('img', { name: 'The plan, and what it says in words' });
  await picture.scrollIntoViewIfNeeded();
  await expect
    .poll(() => picture.evaluate((image) => (image as HTMLImageElement).naturalWidth))
    .toBeGreaterThan(1000);
  await pages.getByRole('link', { name: 'Files' }).click();
  await page.getByRole('article').getByRole('link', { name: 'Students and groups' }).click();
  await expect(page.getByRole('heading', { name: 'Adding students', level: 2 })).toBeFocused();
});

test('the guide is found by its words from anywhere, and an address that is none of its pages says so', async ({
  page,
}) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Quiz 2: collision rules' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('textbox', { name: 'Search' }).fill('broken connection');
  await page.getByRole('button', { name: /^What came late/ }).click();
  await expect(page.getByRole('heading', { name: 'What came late', level: 2 })).toBeFocused();
  const gone = await page.goto('/guide/nothing');
  expect(gone?.status()).toBe(404);
});
