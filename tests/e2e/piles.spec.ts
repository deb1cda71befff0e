import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { expect, test, type Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { testPrint } from '@/core/intake/paper/testSheet';
import { dotsPerMm, pagesOf } from '../../scripts/paperNode';
import { cross, saved, scansOf, writing } from './onPaperSteps';
import { beginPaper, emptyDesk, makeGroup, pasteStudents } from './steps';

/** Papers that somebody else printed: questions made of their regions, piles cut into papers. */

const [width, height] = [1240, 1754];

function sheet(bars: readonly (readonly [number, number, number, number])[] = []): Canvas {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = '#fff';
  context.fillRect(0, 0, width, height);
  context.fillStyle = '#000';
  for (const bar of bars) context.fillRect(...bar);
  return canvas;
}

/** What is printed on the two pages of a paper. */
const front = () =>
  sheet([
    [120, 120, 620, 40],
    [120, 420, 980, 12],
    [120, 980, 700, 12],
  ]);
const back = () =>
  sheet([
    [120, 160, 900, 12],
    [400, 860, 700, 12],
  ]);

const answerAt = { x: 25, y: 90, w: 120, h: 30 };
const written = (page: Canvas, upsideDown = false) => ({ page, strokes: writing(answerAt), upsideDown });
const untouched = (page: Canvas) => ({ page, strokes: [] });

const choose = (page: Page, name: string, buffer: Buffer) =>
  page.getByLabel('Scanned files').setInputFiles({ name, mimeType: 'application/pdf', buffer });

async function drawRegions(page: Page, name: string): Promise<void> {
  await page.getByLabel('Blank paper').setInputFiles([
    { name: 'front.png', mimeType: 'image/png', buffer: front().toBuffer('image/png') },
    { name: 'back.png', mimeType: 'image/png', buffer: back().toBuffer('image/png') },
  ]);
  await expect(page.getByRole('img', { name: 'Blank page 1' })).toBeVisible();
  await page.getByLabel('What this paper is called').fill(name);
}

test('questions are made of the regions of a printed paper, and piles are cut by blank sheets, first pages and stickers', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await makeGroup(page, 'Evening class');
  const people = ['Amara Okafor', 'Ines Duarte', 'Kai Lindqvist', 'Noor Haddad', 'Tomás Rivera', 'Yuki Mori'];
  await pasteStudents(page, ['Name', ...people]);
  await beginPaper(page, 'Pile');
  await page.getByRole('link', { name: 'Draw questions on a printed paper' }).click();
  await page.getByRole('button', { name: 'Give out to 6 students' }).click();
  await page.waitForURL('**/on-paper');
  await page.getByRole('button', { name: 'Use a paper printed elsewhere' }).click();
  await drawRegions(page, 'First print');
  await page.getByRole('button', { name: 'Put a region for Name' }).click();
  await page.getByRole('button', { name: 'Put a region for a new question' }).click();
  await page.getByRole('button', { name: 'Next page' }).click();
  await page.getByRole('button', { name: 'Put a region for a new question' }).click();
  await page.getByRole('textbox', { name: 'What question 1 asks' }).fill('Why do springs come late?');
  await page.getByRole('textbox', { name: 'Points of question 1' }).fill('4');
  await page.getByRole('button', { name: 'Keep 3 regions' }).click();
  await expect(page.getByRole('heading', { name: '0 of 0 papers scanned' })).toBeVisible();

  const begins = page.getByRole('combobox', { name: 'A new paper begins' });
  await begins.selectOption('after a blank sheet');
  // The second student handed in the first page alone.
  const pile = [written(front()), written(back()), untouched(sheet()), written(front())];
  await choose(page, 'blank sheets.pdf', await scansOf(pile));
  await expect(page.getByText('blank sheets.pdf: 3 pages imported, 1 blank sheet left out')).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByRole('heading', { name: '2 of 2 papers scanned' })).toBeVisible();
  await expect(page.getByRole('cell', { name: '1 of 2, without page 2' })).toBeVisible();

  await begins.selectOption('with a page like the first one');
  const more = [written(front(), true), written(back()), written(back()), written(front()), written(back())];
  await choose(page, 'first pages.pdf', await scansOf(more));
  await expect(page.getByText('first pages.pdf: 5 pages imported, 1 asked about')).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByRole('heading', { name: '4 of 4 papers scanned' })).toBeVisible();
  const extra = page.getByRole('group', { name: 'first pages.pdf, page 3' });
  await expect(extra).toContainText('its paper has all its pages before it');
  await extra.getByRole('button', { name: 'Throw out' }).click();

  // A sticker says whose a paper is.
  const stickers = await pagesOf(readFileSync(await saved(page, 'Save code stickers of 6 students')));
  const labels = stickers[0];
  if (!labels) throw new Error('there is a sheet of stickers');
  const stuck = front();
  // The third of the register is in the third column of the first row.
  const [w, h] = [70 * dotsPerMm, 37 * dotsPerMm];
  stuck.getContext('2d').drawImage(labels, 2 * w, 0.5 * dotsPerMm, w, h, 700, 1300, w, h);
  await begins.selectOption('with a page that has a code sticker');
  await choose(page, 'stickers.pdf', await scansOf([written(stuck), written(back())]));
  await expect(page.getByText('stickers.pdf: 2 pages imported')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: '5 of 5 papers scanned' })).toBeVisible();
  await expect(page.getByRole('cell', { name: 'Lindqvist, Kai' })).toBeVisible();

  // The others lie in the order of the register; all of it is one step back.
  await page.getByRole('button', { name: 'Name 4 papers in the order of the register' }).click();
  await expect(page.getByRole('cell', { name: 'Duarte, Ines' })).toBeVisible();
  await expect(page.getByRole('combobox', { name: /^Whose paper/ })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('combobox', { name: /^Whose paper/ })).toHaveCount(4);
  await page.getByRole('button', { name: 'Name 4 papers in the order of the register' }).click();
  await expect(page.getByRole('combobox', { name: /^Whose paper/ })).toHaveCount(0);

  // The questions are in the paper, with their points, and are marked.
  const sitting = /sittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
  await page.goto(`${emptyDesk}/sittings/${sitting}/mark`);
  await expect(page.getByText('Why do springs come late?').first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Answer on paper/ })).toHaveCount(5);

  // A second print takes its regions from the first.
  await page.goto(`${emptyDesk}/sittings/${sitting}/on-paper`);
  await page.getByRole('button', { name: 'Use a paper printed elsewhere' }).click();
  await drawRegions(page, 'Second print');
  await page.getByRole('button', { name: 'Copy the regions of First print' }).click();
  await expect(page.getByRole('button', { name: /^Region for Question 1/ })).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'What the next region is' })).not.toContainText(
    'A new question',
  );
  await page.getByRole('button', { name: 'Keep 3 regions' }).click();
  await expect(page.getByText('Second print: 0 papers of 2 pages')).toBeVisible();
});

test('a test sheet says what a scanner makes of it', async ({ page }) => {
  await page.goto('/sittings/symbols/on-paper');
  const [blank] = await pagesOf(readFileSync(await saved(page, 'Save a test sheet')));
  if (!blank) throw new Error('there is a page');
  const copy = () => {
    const canvas = createCanvas(blank.width, blank.height);
    canvas.getContext('2d').drawImage(blank, 0, 0);
    return canvas;
  };
  await choose(page, 'as printed.pdf', await scansOf([{ page: copy(), strokes: [] }]));
  await expect(
    page.getByText('as printed.pdf: Test sheet: all 40 printed boxes are read as they are'),
  ).toContainText('the row for your pens is empty. This will do.', { timeout: 60_000 });
  const pens = (testPrint.pages[0] ?? []).filter(({ part }) => part === 'pens');
  await choose(page, 'crossed.pdf', await scansOf([{ page: copy(), strokes: pens.flatMap(cross) }]));
  await expect(page.getByText(/^crossed\.pdf: Test sheet/)).toContainText(
    'all 10 crosses of your pens are read. This will do.',
    { timeout: 60_000 },
  );
  // Nothing of it is imported.
  await expect(page.getByRole('heading', { name: '15 of 29 papers scanned' })).toBeVisible();
});
