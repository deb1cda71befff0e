import { expect, test } from '@playwright/test';

test('a made-up class sits the paper, is marked and looked at, and goes without trace', async ({ page }) => {
  await page.goto('/papers/paper-tides/give');
  await page.getByLabel('Made-up students').fill('20');
  await page.getByRole('button', { name: 'Rehearse with 20' }).click();
  await expect(page.getByRole('button', { name: '20 not started' })).toBeVisible();
  await page.getByRole('radio', { name: 'all at once' }).check();
  await page.getByRole('button', { name: 'Start the class' }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Continue the class' })).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByRole('button', { name: /^(1\d|20) handed in$/ })).toBeVisible();
  await page
    .getByRole('navigation', { name: /^Stages of/ })
    .getByRole('link', { name: /^Mark/ })
    .click();
  await page.keyboard.press('1');
  await page.goBack();
  await page.getByRole('button', { name: 'Delete rehearsal' }).click();
  await expect(page.getByRole('heading', { name: 'On the desk' })).toBeVisible();
  await expect(page.getByRole('heading', { name: /Rehearsal/ })).toHaveCount(0);
  await page.goto('/groups/all');
  await expect(page.getByText('92 students', { exact: true })).toBeVisible();
  await page.goto('/groups');
  await expect(page.getByText('The made-up class')).toHaveCount(0);
});

test('a rehearsal can be stopped on its way', async ({ page }) => {
  await page.goto('/papers/paper-rules/give');
  await page.getByRole('button', { name: /^Rehearse with/ }).click();
  await page.getByRole('radio', { name: '10 times' }).check();
  await page.getByRole('button', { name: 'Start the class' }).click();
  await page.getByRole('button', { name: 'Stop the class' }).click();
  await expect(page.getByRole('button', { name: /(Start|Continue) the class/ })).toBeVisible();
  await page.getByRole('button', { name: 'Delete rehearsal' }).click();
  await expect(page.getByRole('heading', { name: 'On the desk' })).toBeVisible();
});

test('the teacher is a student for a minute, and it counts nowhere', async ({ page, context }) => {
  await page.goto('/sittings/tides/run');
  await expect(page.getByRole('button', { name: '92 handed in' })).toBeVisible();
  const opening = context.waitForEvent('page');
  await page.getByRole('button', { name: 'Start a try-out' }).click();
  const student = await opening;
  await student.getByRole('button', { name: 'Continue' }).click();
  await student.getByRole('button', { name: 'Yes, this is me' }).click();
  await student.getByRole('button', { name: 'Read the instructions' }).click();
  await student.getByRole('button', { name: 'Start', exact: true }).click();
  await student.getByRole('radio').first().check();
  await expect(student.getByText(/^saved \d/)).toBeVisible();
  await student.getByRole('button', { name: 'Check and hand in', exact: true }).click();
  await student.getByRole('button', { name: /^Hand in/ }).click();
  await expect(student.getByRole('heading', { name: 'Handed in' })).toBeVisible();
  await page.bringToFront();
  await expect(page.getByRole('button', { name: '92 handed in' })).toBeVisible();
  await page.goto('/groups/all');
  await expect(page.getByText('92 students', { exact: true })).toBeVisible();
});
