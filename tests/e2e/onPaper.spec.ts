import { PDFDocument } from '@cantoo/pdf-lib';
import { createCanvas } from '@napi-rs/canvas';
import { expect, test, type Page } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { zipSync } from 'fflate';
import UTIF from 'utif2';
import { readFileSync } from 'node:fs';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { grayOf, jpegOf, pagesOf } from '../../scripts/paperNode';
import { cross, saved, scansOf, slip, writing } from './onPaperSteps';
import { pdfText } from './pdf';
import { kept } from './steps';

const rows = [
  'Name\tStudent number\tWhich stream runs out?\tHow far in 2 h at 6 kn?\tWhy do springs come late?',
  '\tKEY\tebb\t12\t',
  'Amara Okafor\t8101\tflood\t10\tIt is late',
  'Ines Duarte\t8102\tflood\t12\tThe water answers later than sun and moon pull together',
  'Kai Lindqvist\t8103\tebb\t24\tI do not know that yet',
];

/** A sitting with a paper of three questions and three students, made from a sheet. */
async function sittingWithClass(page: Page): Promise<string> {
  await page.goto('/answers');
  await page.getByRole('textbox', { name: 'Rows of answers' }).fill(rows.join('\n'));
  await page.getByRole('combobox', { name: 'Right answers are in' }).selectOption({ index: 1 });
  await page.getByRole('combobox', { name: 'Kind of Which stream runs out?' }).selectOption('oneChoice');
  await page.getByRole('combobox', { name: 'Kind of Why do springs come late?' }).selectOption('openText');
  await page.getByRole('textbox', { name: 'Name of the sitting' }).fill('On paper');
  await page.getByRole('textbox', { name: 'Name of the new group' }).fill('Paper group');
  await page.getByRole('button', { name: 'Import answers of 3 rows' }).click();
  await page.getByRole('link', { name: 'Analyse' }).click();
  await page.waitForURL('**/analyse');
  return /sittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
}

/** What was printed for a sitting, as the desk keeps it; the demo has a print of its own. */
const printOf = (page: Page, sitting: string): Promise<AnswerPaper> =>
  page.evaluate(
    (sittingId) =>
      new Promise<AnswerPaper>((resolve) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onsuccess = () => {
          const all = opening.result.transaction('prints').objectStore('prints').getAll();
          all.onsuccess = () =>
            resolve(
              (all.result as AnswerPaper[]).find((print) => print.sittingId === sittingId) as AnswerPaper,
            );
        };
      }),
    sitting,
  );

/** What a student comes in with. */
const joinCodeIn = (page: Page, studentId: string): Promise<string> =>
  page.evaluate(
    (id) =>
      new Promise<string>((resolve) => {
        const opening = indexedDB.open('gribbet-desk');
        opening.onsuccess = () => {
          const one = opening.result.transaction('students').objectStore('students').get(id);
          one.onsuccess = () => resolve((one.result as { joinCode: string }).joinCode);
        };
      }),
    studentId,
  );

test('papers are printed and scanned, doubtful ticks settled, answers typed and marked on the page, and handed back with it', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const sitting = await sittingWithClass(page);
  await page.goto(`/sittings/${sitting}/run`);
  await page.getByRole('link', { name: 'On paper: print and scan' }).click();
  await expect(page.getByRole('heading', { name: 'Nothing is on paper yet' })).toBeVisible();
  const papers = await saved(page, 'Make 3 papers as PDF');
  await expect(page.getByRole('heading', { name: '0 of 3 papers scanned' })).toBeVisible();
  for (const name of ['Amara Okafor', 'Ines Duarte', 'Kai Lindqvist'])
    expect(await pdfText(papers)).toContain(name);

  const print = await printOf(page, sitting);
  expect(print.pages.length).toBe(1);
  const blank = await pagesOf(readFileSync(papers));
  const [regions = []] = print.pages;
  const boxes = regions.filter(({ box }) => box !== null);
  const areas = regions.filter(({ box }) => box === null);
  const [first, second] = boxes;
  if (!first || !second || !blank[0] || !blank[1] || !blank[2]) throw new Error('there are boxes and pages');
  const stranger = createCanvas(blank[0].width, blank[0].height);
  stranger.getContext('2d').fillStyle = '#fff';
  stranger.getContext('2d').fillRect(0, 0, stranger.width, stranger.height);
  const scans = await scansOf([
    { page: blank[2], strokes: [...slip(first), ...writing(areas[1] ?? first)] },
    { page: blank[0], strokes: [...cross(first), ...areas.flatMap(writing)], upsideDown: true },
    { page: stranger, strokes: [] },
  ]);

  await page
    .getByLabel('Scanned files')
    .setInputFiles({ name: 'scans.pdf', mimeType: 'application/pdf', buffer: scans });
  await expect(page.getByText('scans.pdf: 3 pages imported, 1 asked about')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: '2 of 3 papers scanned' })).toBeVisible();
  // A page of something else is named with its place, and thrown out.
  const unknown = page.getByRole('group', { name: 'scans.pdf, page 3' });
  await expect(unknown).toContainText('no code of an answer paper was found');
  await unknown.getByRole('button', { name: 'Throw out' }).click();
  await expect(page.getByRole('region', { name: 'Pages to look at' })).toHaveCount(0);
  // The slip of the pen is asked about, with its picture, and settled by one key.
  const asked = page.getByRole('group', { name: 'Amara Okafor, question 1: what is ticked isn’t clear' });
  await expect(asked.getByRole('img', { name: 'The boxes on paper' })).toBeVisible();
  await asked.focus();
  await page.keyboard.press('0');
  await expect(page.getByRole('region', { name: 'Ticks to look at' })).toHaveCount(0);
  await expect(page.getByRole('heading', { name: '2 of 3 papers scanned' })).toBeFocused();

  // A page that was given to the wrong one is moved, and put back by undo.
  await page.getByRole('button', { name: 'Pages of paper 3' }).click();
  await page.getByRole('combobox', { name: 'Whose scans.pdf, page 1 is' }).selectOption('2');
  await page.getByRole('button', { name: 'Move: scans.pdf, page 1' }).click();
  await expect(page.getByRole('row', { name: /Lindqvist, Kai all 1/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Okafor, Amara none yet/ })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('row', { name: /Okafor, Amara all 1/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Lindqvist, Kai none yet/ })).toBeVisible();

  // The same file again brings nothing twice.
  await page
    .getByLabel('Scanned files')
    .setInputFiles({ name: 'scans.pdf', mimeType: 'application/pdf', buffer: scans });
  await expect(page.getByText('scans.pdf: 0 pages imported, 3 imported before')).toBeVisible({
    timeout: 60_000,
  });

  // What is written for a question with a key is typed, and scored by the key then.
  await page.goto(`/sittings/${sitting}/mark`);
  const questions = page.getByRole('navigation', { name: 'Questions' });
  await questions.getByRole('button', { name: /^Question 2, 2 not read yet/ }).click();
  const current = page.getByRole('button', { name: /^Answer on paper/ }).first();
  await current.click();
  await page.getByRole('textbox', { name: 'Type what stands on paper' }).fill('12');
  await page.getByRole('button', { name: 'Keep the words' }).click();
  await expect(questions.getByRole('button', { name: /^Question 2, 1 not read yet/ })).toBeVisible();
  await page
    .getByRole('button', { name: /^Answer on paper|^not answered/ })
    .first()
    .click();
  await page.keyboard.press('0');
  await expect(questions.getByRole('button', { name: /^Question 2, scored by key/ })).toBeVisible();

  // The open answers are marked on their pictures.
  await questions.getByRole('button', { name: /^Question 3/ }).click();
  for (const n of [0, 1]) {
    const row = page.getByRole('button', { name: /^Answer on paper/ }).nth(n);
    await row.click();
    await page.keyboard.press('F9');
    const surface = page.getByRole('application', { name: /^Answer on paper/ });
    await expect(surface).toBeFocused();
    await page.keyboard.press('t');
    await expect(surface).toHaveAccessibleName(/1 tick/);
    await page.keyboard.press('Escape');
    await row.press('1');
    await expect(row).toContainText('1 / 1');
  }

  // The student gets the page with the mark on it, once it is let out.
  await page.goto(`/sittings/${sitting}/scripts/${print.copies[0]}`);
  await expect(page.getByRole('img', { name: 'Answer on paper' }).first()).toBeVisible();
  await page.goto(`/sittings/${sitting}/export`);
  await page.getByLabel('What', { exact: true }).selectOption('Marked scripts (PDF)');
  const one = await saved(page, /^Save one PDF of/);
  expect(await pdfText(one)).toContain('on paper, see the pages behind');
  const { numPages } = await getDocument({ data: new Uint8Array(readFileSync(one)), verbosity: 0 }).promise;
  // Three scripts, and behind them the two pages that were scanned.
  expect(numPages).toBe(5);

  // On a phone the student sees the place of the answer, with the tick on it, and nothing runs over.
  await page.goto(`/sittings/${sitting}/hand-back`);
  await expect(page.getByText(/not read yet|waits for a mark/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Hand back to 2 students' }).click();
  await kept(page, 'Handed back to 2 students');
  const code = await joinCodeIn(page, print.copies[0] ?? '');
  await page.setViewportSize({ width: 360, height: 740 });
  await page.goto(`/sit?code=${code}`);
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.getByRole('button', { name: /this is me/ }).click();
  await page.getByRole('button', { name: 'See my result' }).click();
  const third = page.getByRole('region', { name: 'Question 3' });
  await expect(third.getByRole('img', { name: 'Answer on paper' })).toBeVisible();
  await expect(third.getByRole('img', { name: 'Marks of the marker: 1 tick' })).toBeVisible();
  await third.getByRole('button', { name: 'Show the whole page' }).click();
  await expect(third.getByRole('img', { name: 'Whole page' })).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
});

test('files that are no scans are named, and nothing of them is taken; a zip, a TIFF and a photo are read', async ({
  page,
}) => {
  const sitting = await sittingWithClass(page);
  await page.goto(`/sittings/${sitting}/on-paper`);
  const papers = await saved(page, 'Make 3 papers as PDF');
  const take = (name: string, buffer: Buffer) =>
    page.getByLabel('Scanned files').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
  await take('letter.pdf', Buffer.from('This is no PDF'));
  await expect(page.getByText(/letter\.pdf.*It isn’t a PDF, a picture/)).toBeVisible({ timeout: 60_000 });
  await take('half.pdf', Buffer.from('%PDF-1.7\nand then nothing'));
  await expect(page.getByText(/half\.pdf.*It isn’t a PDF, a picture/)).toBeVisible({ timeout: 60_000 });
  const locked = await PDFDocument.create();
  locked.addPage([595, 842]);
  locked.encrypt({ userPassword: 'tide', ownerPassword: 'tide' });
  await take('locked.pdf', Buffer.from(await locked.save()));
  await expect(page.getByText(/locked\.pdf.*password/)).toBeVisible({ timeout: 60_000 });
  // A PNG that says it has 60,000 by 60,000 pixels (W3C PNG, 11.2.2).
  const huge = Buffer.alloc(64);
  Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]).copy(huge);
  huge.writeUInt32BE(60_000, 16);
  huge.writeUInt32BE(60_000, 20);
  await take('huge.png', huge);
  await expect(page.getByText(/huge\.png.*too many pixels/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: '0 of 3 papers scanned' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Pages to look at' })).toHaveCount(0);

  // A TIFF (TIFF 6.0, as another library writes it) and a photo in a zip, and a page of a PDF of text beside them.
  const [first, second] = await pagesOf(readFileSync(papers));
  if (!first || !second) throw new Error('there are pages');
  const rgba = first.getContext('2d').getImageData(0, 0, first.width, first.height).data;
  const tiff = new Uint8Array(UTIF.encodeImage(new Uint8Array(rgba), first.width, first.height));
  const zip = zipSync({ 'a/one.tif': tiff, 'a/two.jpg': new Uint8Array(jpegOf(grayOf(second), 80)) });
  await take('all.zip', Buffer.from(zip));
  await expect(page.getByText('all.zip: 2 pages imported')).toBeVisible({ timeout: 60_000 });
  await take('papers.pdf', readFileSync(papers));
  await expect(page.getByText('papers.pdf: 3 pages imported')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: '3 of 3 papers scanned' })).toBeVisible();
  await expect(page.getByText('all 1; page 1 twice')).toHaveCount(2);
});

test('reading that was cut short goes on where it was, and nothing comes twice', async ({ page }) => {
  test.setTimeout(300_000);
  await page.goto('/sittings/symbols/on-paper');
  await expect(page.getByRole('heading', { name: '15 of 29 papers scanned' })).toBeVisible();
  // What was printed comes out the same again.
  const papers = await pagesOf(readFileSync(await saved(page, 'Save the PDF again: As in the paper')));
  expect(papers.length).toBe(58);
  const pages = papers.slice(30, 42).map((canvas) => ({ page: canvas, strokes: [] }));
  const buffer = await scansOf(pages);
  const choose = () =>
    page
      .getByLabel('Scanned files')
      .setInputFiles({ name: 'second half.pdf', mimeType: 'application/pdf', buffer });
  await choose();
  await expect(page.getByText(/second half\.pdf: page ([3-9]|1\d) of 12/)).toBeVisible({ timeout: 60_000 });
  await page.reload();
  await expect(page.getByText(/^second half\.pdf was read up to page \d+\. Choose it again/)).toBeVisible();
  await expect(page.getByRole('heading', { name: '15 of 29 papers scanned' })).toBeVisible();
  await choose();
  await expect(page.getByText('second half.pdf: 12 pages imported')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: '21 of 29 papers scanned' })).toBeVisible();
  await expect(page.getByText(/was read up to page/)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: '15 of 29 papers scanned' })).toBeVisible();
});

test('a paper printed elsewhere: regions drawn once, scans in order, names typed, answers marked on their place', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const sitting = await sittingWithClass(page);
  await page.goto(`/sittings/${sitting}/on-paper`);
  await page.getByRole('button', { name: 'Use a paper printed elsewhere' }).click();
  const blank = () => {
    const canvas = createCanvas(1240, 1754);
    const context = canvas.getContext('2d');
    context.fillStyle = '#fff';
    context.fillRect(0, 0, 1240, 1754);
    context.strokeStyle = '#000';
    context.lineWidth = 3;
    for (const y of [60, 300, 700, 1100]) context.strokeRect(120, y, 1000, 160);
    return canvas;
  };
  await page
    .getByLabel('Blank paper')
    .setInputFiles({ name: 'blank.png', mimeType: 'image/png', buffer: blank().toBuffer('image/png') });
  await expect(page.getByRole('img', { name: 'Blank page 1' })).toBeVisible();
  // The name with the mouse, the answers by keys.
  const sheet = (await page.getByRole('img', { name: 'Blank page 1' }).boundingBox()) ?? {
    x: 0,
    y: 0,
    width: 1,
    height: 1,
  };
  const at = (x: number, y: number): [number, number] => [
    sheet.x + (x / 1240) * sheet.width,
    sheet.y + (y / 1754) * sheet.height,
  ];
  await page.mouse.move(...at(110, 50));
  await page.mouse.down();
  await page.mouse.move(...at(1130, 230));
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /^Region for Name/ })).toBeVisible();
  for (const question of [1, 2, 3])
    await page.getByRole('button', { name: `Put a region for Question ${question}` }).click();
  // Moved down to where the second and third frames are, 5 mm at a time.
  const region = (question: number) =>
    page.getByRole('button', { name: new RegExp(`^Region for Question ${question}`) });
  for (const [question, steps] of [
    [1, -5],
    [2, 2],
    [3, 10],
  ] as const) {
    await region(question).focus();
    for (let step = 0; step < Math.abs(steps); step++)
      await page.keyboard.press(steps < 0 ? 'ArrowUp' : 'ArrowDown');
  }
  await expect(region(1)).toHaveAccessibleName(/47 from the top/);
  await page.getByRole('button', { name: 'Keep 4 regions' }).click();
  await expect(page.getByRole('heading', { name: '0 of 0 papers scanned' })).toBeVisible();

  // Two students' pages; the second left the third answer free.
  const filled = (areas: number[]) => {
    const canvas = blank();
    const context = canvas.getContext('2d');
    context.strokeStyle = '#222';
    context.lineWidth = 5;
    for (const y of areas) {
      context.beginPath();
      for (let x = 160; x < 600; x += 12) context.lineTo(x, y + 60 + (x % 24) * 1.5);
      context.stroke();
    }
    return canvas;
  };
  const pdf = await PDFDocument.create();
  for (const canvas of [filled([60, 300, 700, 1100]), filled([60, 300, 700])]) {
    const picture = await pdf.embedJpg(canvas.toBuffer('image/jpeg', 80));
    pdf.addPage([595, 842]).drawImage(picture, { x: 0, y: 0, width: 595, height: 842 });
  }
  await page
    .getByLabel('Scanned files')
    .setInputFiles({ name: 'pile.pdf', mimeType: 'application/pdf', buffer: Buffer.from(await pdf.save()) });
  await expect(page.getByText('pile.pdf: 2 pages imported')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('heading', { name: '2 of 2 papers scanned' })).toBeVisible();
  // Names by a few letters, one after the other.
  await page.getByRole('combobox', { name: 'Whose paper 1 is' }).fill('ama');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('cell', { name: 'Okafor, Amara' })).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Whose paper 2 is' })).toBeFocused();
  await page.keyboard.type('kai');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('cell', { name: 'Lindqvist, Kai' })).toBeVisible();

  // What is written is marked on its place; what has no ink is together.
  await page.goto(`/sittings/${sitting}/mark`);
  await page
    .getByRole('navigation', { name: 'Questions' })
    .getByRole('button', { name: /^Question 3/ })
    .click();
  await expect(page.getByRole('button', { name: /^Answer on paper/ })).toHaveCount(1);
  await expect(page.getByText('not answered: no ink on paper')).toBeVisible();
  await page.getByRole('button', { name: /^Answer on paper/ }).click();
  await page.keyboard.press('1');
  await expect(page.getByRole('button', { name: /^Answer on paper/ })).toContainText('1 / 1');
});
