import { expect, test } from '@playwright/test';
import {
  beginPaper,
  emptyDesk,
  enterAs,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  startPaper,
  writeCell,
  writeChoice,
  writeOpen,
} from './steps';

test('time up hands in what is there, and the teacher sees it', async ({ page, context }) => {
  test.setTimeout(240_000);
  await makeGroup(page, 'Short sitting');
  await pasteStudents(page, ['Name,Number', 'Nia Mwangi,1', 'Ewa Nowak,2']);
  const nia = await joinCodeOf(page, 'Mwangi');
  const ewa = await joinCodeOf(page, 'Nowak');
  await beginPaper(page, 'One minute');
  await writeChoice(page, 1, 'Red is', ['port', 'starboard']);
  await writeOpen(page, 2, 'Why?', 'By convention', 'convention');
  await kept(page, /Points for line A changed/);
  await page.keyboard.press('Escape');
  await page.getByRole('heading', { name: 'Nothing to fix' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Give out' }).click();
  await page.getByLabel('Time limit in minutes').fill('1');
  await page.getByRole('button', { name: 'Give out to 2 students' }).click();
  await expect(page.getByRole('button', { name: '2 not started' })).toBeVisible();

  const student = await enterAs(context, nia);
  await startPaper(student);
  await student.getByRole('radio', { name: /port/ }).first().check();
  await student.getByRole('textbox', { name: /Why/ }).fill('It is the conv');
  await expect(student.getByText(/^0:?\d?\d?:?\d\d left$|^00:\d\d left$/)).toBeVisible();

  // Meanwhile nobody new may start.
  await page.getByRole('button', { name: 'Close to new starts' }).click();
  await kept(page, 'Closed to new starts');
  const late = await enterAs(context, ewa);
  await expect(late.getByText('Closed. You didn’t sit it.')).toBeVisible();
  await late.close();

  await expect(student.getByRole('heading', { name: /^Handed in$|^Time is up/ })).toBeVisible({
    timeout: 90_000,
  });
  await expect(student.getByText('2 of 2 questions')).toBeVisible();
  await expect(page.getByRole('button', { name: '1 handed in' })).toBeVisible({ timeout: 15_000 });
  await page.goto(page.url().replace('/run', '/mark'));
  await expect(page.getByRole('button', { name: /It is the conv/ })).toBeVisible();
});

test('a register is kept: changed, taken out, taken back, renamed', async ({ page }) => {
  await makeGroup(page, 'Register');
  await pasteStudents(
    page,
    ['Okafor, Amara', 'Tran, Linh'].map((name) => `"${name}"`),
  );
  await writeCell(page, 'Number of Amara Okafor', '2101');
  await expect(page.getByRole('button', { name: 'Number of Amara Okafor: 2101' })).toBeVisible();
  await page.getByLabel('Select Linh Tran').check();
  await page.getByRole('button', { name: 'Remove from group' }).click();
  await expect(page.getByRole('row', { name: /Tran/ })).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('row', { name: /Linh Tran/ })).toBeVisible();
  await page.getByRole('textbox', { name: 'Given name' }).fill('Mateo');
  await page.getByRole('textbox', { name: 'Family name' }).fill('Ferreira');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('row', { name: /Mateo Ferreira/ })).toBeVisible();
  await page.getByLabel('Group name').fill('Register B');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('heading', { name: 'Register B', level: 1 })).toBeVisible();
});

test('a Latin-1 file is read, its columns can be changed, and none may be brought in', async ({ page }) => {
  await makeGroup(page, 'Latin');
  const latin1 = Buffer.from('Åberg,José,12\nWójcik,Ana,x y\n'.replace('ó', 'o'), 'latin1');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'l1.csv', mimeType: 'text/csv', buffer: latin1 });
  await expect(page.getByRole('cell', { name: 'Åberg' })).toBeVisible();
  await expect(page.getByRole('cell', { name: 'José' })).toBeVisible();
  await page.getByLabel('Column 1 is').selectOption('given name');
  await page.getByLabel('Column 2 is').selectOption('family name');
  await page.getByRole('button', { name: 'Import 2 students' }).click();
  await expect(page.getByRole('row', { name: /Åberg José/ })).toBeVisible();
  await page.getByRole('button', { name: 'Add students' }).click();
  await page.getByLabel('List of students').fill('Name,Email\nAnn Baker,ann at example');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await kept(page, 'Nothing was imported');
  await expect(page.getByRole('row')).toHaveCount(3);
});

test('what does not exist is said, with a way on', async ({ page }) => {
  for (const [path, words] of [
    ['/papers/nowhere', 'Paper not found'],
    ['/sittings/nowhere/mark', 'Sitting not found'],
    ['/groups/nowhere', 'Group not found'],
  ] as const) {
    await page.goto(emptyDesk + path);
    await expect(page.getByRole('heading', { name: words })).toBeVisible();
  }
});

test('files have names that change with them, and nothing beside them is given out', async ({
  page,
  request,
}) => {
  await page.goto(`${emptyDesk}/sit`);
  const script = await page
    .locator('script[src], [component-url]')
    .first()
    .evaluate((element) => element.getAttribute('component-url') ?? element.getAttribute('src'));
  const file = await request.get(emptyDesk + script);
  expect(file.headers()).toMatchObject({
    'content-type': expect.stringContaining('javascript'),
    'cache-control': 'public, max-age=31536000, immutable',
    'x-content-type-options': 'nosniff',
    // A script may run as a worker, which has no page whose policy holds for it.
    'content-security-policy': expect.stringContaining("default-src 'none'; script-src 'self'"),
  });
  // A worker of the desk runs no WebAssembly: only those that make and read pages may.
  const [worker] = await Promise.all([page.waitForEvent('worker'), page.goto(emptyDesk)]);
  expect(worker.url()).toContain('/desk.worker');
  const policy = (await request.get(worker.url())).headers()['content-security-policy'];
  expect(policy).toContain("script-src 'self';");
  const lost = await request.get(`${emptyDesk}/nowhere`);
  expect(lost.status()).toBe(404);
  expect(await lost.text()).toContain('There is no such page');
  for (const path of ['/_astro/nothing.js', '/%2e%2e/package.json', '/..%2f..%2fpackage.json', '/%E0%A4%A'])
    expect((await request.get(emptyDesk + path)).status(), path).toBe(404);
});

test('dark paper stays dark on the next page', async ({ page }) => {
  await page.goto(emptyDesk);
  await page.getByRole('button', { name: 'Dark theme' }).click();
  await page.goto(`${emptyDesk}/groups`);
  await expect(page.getByRole('button', { name: 'Light theme' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark');
});
