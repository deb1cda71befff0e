import { readFileSync } from 'node:fs';
import { expect, test, type BrowserContext, type Page } from '@playwright/test';
import { unzipSync, zipSync } from 'fflate';
import {
  beginPaper,
  emptyDesk,
  givePaper,
  handBack,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  stage,
  startPaper,
  writeChoice,
  writeOpen,
} from './steps';

/** A file as it was saved by a page. */
interface Saved {
  name: string;
  mimeType: string;
  buffer: Buffer;
}

async function saved(page: Page, button: string | RegExp): Promise<Saved> {
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: button }).click();
  const file = await saving;
  const mimeType = file.suggestedFilename().endsWith('.zip') ? 'application/zip' : 'application/json';
  return { name: file.suggestedFilename(), mimeType, buffer: readFileSync(await file.path()) };
}

/** A student's computer that reaches no server: the page is there, and nothing behind it. */
async function lonelyPage(context: BrowserContext, base: string): Promise<Page> {
  const page = await context.newPage();
  await page.route('**/api/**', (route) => route.abort());
  await page.goto(`${base}/sit`);
  await page.getByRole('button', { name: 'Your teacher gave you a file? Open it' }).click();
  return page;
}

const choose = (page: Page, file: Saved) => page.locator('input[type=file]').setInputFiles(file);

test('by hand: the paper out as a sealed file, worked on without a network, answers in, script back', async ({
  page,
  browser,
}) => {
  test.setTimeout(240_000);
  await makeGroup(page, 'By hand');
  await pasteStudents(page, ['Name', '"Adeyemi, Tunde"', '"Larsen, Freja"', '"Haddad, Samir"']);
  const tunde = await joinCodeOf(page, 'Adeyemi');
  const freja = await joinCodeOf(page, 'Larsen');
  await beginPaper(page, 'Anchoring in the post');
  await writeChoice(page, 1, 'Scope means', ['chain to depth', 'depth to chain', 'swinging room']);
  await writeOpen(page, 2, 'Why does an anchor drag?', 'Too little scope', 'names the scope');
  await givePaper(page, 'By hand', 3);
  await page.getByRole('link', { name: 'No network? Carry it in files' }).click();
  await page.getByRole('button', { name: 'Create an access code to seal it' }).click();
  await kept(page, /^The access code is now/);
  const code = (await page.getByText(/^[2-9A-Z]{5}-[2-9A-Z]{5}$/).textContent()) ?? '';
  const paper = await saved(page, 'Save the paper');
  expect(paper.name).toBe('Anchoring-in-the-post.json');
  expect(paper.buffer.toString()).not.toContain('Scope');

  const phone = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const laptop = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const first = await lonelyPage(phone, emptyDesk.replace('localhost', 'classroom.test'));
  await test.step('a file that is none is named; the sealed one opens with the code alone', async () => {
    await choose(first, { ...paper, name: 'letter.json', buffer: Buffer.from('{"dear": "teacher"}') });
    await expect(first.getByRole('alert')).toHaveText('letter.json isn’t a Gribbet paper.');
    await choose(first, { ...paper, buffer: paper.buffer.subarray(0, -90) });
    await expect(first.getByRole('alert')).toContainText('is damaged');
    await choose(first, paper);
    await first.getByLabel('Access code').fill('AAAAA-AAAAA');
    await first.getByRole('button', { name: 'Open' }).click();
    await expect(first.getByText('That isn’t the access code.')).toBeVisible({ timeout: 30_000 });
    await first.getByLabel('Access code').fill(code.toLowerCase());
    await first.getByRole('button', { name: 'Open' }).click();
    await expect(first.getByRole('heading', { name: 'Anchoring in the post' })).toBeVisible({
      timeout: 30_000,
    });
    await first.getByLabel('Your name').fill('T. Adeyemi');
    await first.getByLabel('Your join code').fill('O1O1O1');
    await first.getByRole('button', { name: 'Continue' }).click();
    await expect(first.getByText('Join codes have no O.')).toBeVisible();
    await first.getByLabel('Your join code').fill(tunde);
    await first.getByRole('button', { name: 'Continue' }).click();
  });

  const answers = await test.step('worked on without any server, and saved', async () => {
    await startPaper(first);
    await first.getByRole('radio', { name: /chain to depth/ }).check();
    await first.getByRole('textbox', { name: /anchor drag/ }).fill('Too little chain for the depth.');
    await expect(first.getByText(/^saved \d/)).toBeVisible();
    await first.reload();
    await first.getByLabel('Your join code').fill(tunde);
    await first.getByRole('button', { name: 'Continue' }).click();
    await first.getByRole('button', { name: 'Yes, this is me' }).click();
    await startPaper(first);
    await expect(first.getByRole('textbox', { name: /anchor drag/ })).toHaveValue(/Too little chain/);
    await first.getByRole('button', { name: 'Check before handing in' }).click();
    await first.getByRole('button', { name: /^Hand in/ }).click();
    await expect(first.getByText('Your answers are on this computer only.')).toBeVisible();
    const file = await saved(first, 'Save your answers as a file');
    expect(file.name).toBe('Anchoring-in-the-post-answers-T-Adeyemi.json');
    await expect(first.getByText(/Give this file to your teacher/)).toBeVisible();
    expect(await first.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
    return file;
  });

  const others = await test.step('each student’s own file knows whose it is', async () => {
    await page.getByRole('radio', { name: /^One file per student/ }).check();
    const zip = await saved(page, 'Save the papers');
    const inside = Object.entries(unzipSync(zip.buffer));
    expect(inside.map(([name]) => name)).toEqual([
      'Adeyemi-Tunde-Anchoring-in-the-post.json',
      'Haddad-Samir-Anchoring-in-the-post.json',
      'Larsen-Freja-Anchoring-in-the-post.json',
    ]);
    const second = await lonelyPage(laptop, emptyDesk);
    await choose(second, { ...paper, buffer: Buffer.from(inside[2]?.[1] ?? []) });
    await second.getByLabel('Access code').fill(code);
    await second.getByRole('button', { name: 'Open' }).click();
    await expect(second.getByText('This file is for Freja Larsen.')).toBeVisible();
    await second.getByLabel('Your join code').fill(freja);
    await second.getByRole('button', { name: 'Continue' }).click();
    await startPaper(second);
    await second.getByRole('radio', { name: /swinging room/ }).check();
    await second.getByRole('button', { name: 'Check before handing in' }).click();
    await second.getByRole('button', { name: /^Hand in/ }).click();
    await expect(second.getByText('Your answers are on this computer only.')).toBeVisible();
    return saved(second, 'Save your answers as a file');
  });

  await test.step('what comes back is taken in or told apart', async () => {
    const changed = { ...answers, name: 'changed.json' };
    changed.buffer = Buffer.from(answers.buffer.toString().replace('Too little', 'Much too little'));
    const damaged = { ...answers, name: 'damaged.json', buffer: answers.buffer.subarray(0, -40) };
    const zip = { name: 'class.zip', mimeType: 'application/zip', buffer: Buffer.from('') };
    zip.buffer = Buffer.from(zipSync({ 'freja.json': others.buffer, 'again.json': others.buffer }));
    await page
      .getByLabel('Choose answer files')
      .setInputFiles([answers, changed, damaged, zip, { ...paper, name: 'paper.json' }]);
    const rows = page.getByRole('list', { name: 'Imported files' }).getByRole('listitem');
    await expect(rows).toHaveCount(6);
    await expect(page.getByRole('status').filter({ hasText: '2 files imported, 4 not' })).toBeVisible();
    const row = (text: string) => rows.filter({ hasText: text });
    await expect(row(answers.name)).toContainText('Tunde Adeyemi. The name that was typed is “T. Adeyemi”.');
    await expect(row('changed.json')).toContainText('Changed since it was saved');
    await expect(row('damaged.json')).toContainText('damaged');
    await expect(row('class.zip: again.json')).toContainText('Freja Larsen.');
    await expect(row('class.zip: freja.json')).toContainText('A duplicate: everything in it is already here');
    await expect(row('paper.json')).toContainText('A sealed packet of Anchoring in the post, not answers.');
    await page.keyboard.press('Control+z');
    await expect(row(answers.name)).toContainText('It is no longer on this desk.');
    await row('class.zip: again.json').getByRole('button', { name: 'Import again' }).click();
    await row(answers.name).getByRole('button', { name: 'Import again' }).click();
    await expect(page.getByRole('status').filter({ hasText: '2 files imported, 4 not' })).toBeVisible();
    await row('changed.json').getByRole('button', { name: 'Import anyway' }).click();
    await expect(row('changed.json')).toContainText('A duplicate');
    await page.getByRole('link', { name: 'See each student' }).click();
    await expect(page.getByRole('button', { name: '2 handed in' })).toBeVisible();
  });

  await test.step('marked, handed back, and read from a file', async () => {
    await stage(page, 'Mark');
    await page.getByRole('button', { name: /Too little chain/ }).click();
    await page.keyboard.press('3');
    await handBack(page);
    await stage(page, 'Run');
    await page.getByRole('link', { name: 'No network? Carry it in files' }).click();
    const zip = await saved(page, 'Save scripts as a zip');
    const script = unzipSync(zip.buffer)['Adeyemi-Tunde-Anchoring-in-the-post-back.json'];
    await first.getByRole('button', { name: 'Go to your papers' }).click();
    await first.getByRole('button', { name: 'Open a file from your teacher' }).click();
    await choose(first, { ...zip, name: 'script.json', buffer: Buffer.from(script ?? []) });
    await expect(first.getByLabel('Your join code')).toHaveValue(tunde.replace(' ', ''));
    await first.getByRole('button', { name: 'Open' }).click();
    await first.getByRole('button', { name: 'See my result' }).click({ timeout: 30_000 });
    await expect(first.getByText(/4 of 4 points/)).toBeVisible();
    expect(await first.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  });

  await test.step('a shared computer forgets it', async () => {
    await first
      .getByRole('button', { name: /papers/ })
      .first()
      .click();
    await first.getByRole('button', { name: 'Remove from this computer' }).click();
    await first.getByRole('button', { name: 'Remove', exact: true }).click();
    await expect(first.getByRole('heading', { name: 'Sit a paper' })).toBeVisible();
  });
  await phone.close();
  await laptop.close();
});
