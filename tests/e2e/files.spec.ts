import { readFileSync } from 'node:fs';
import { expect, test, type Locator, type Page } from '@playwright/test';
import { pdfText } from './pdf';
import {
  beginPaper,
  emptyDesk,
  enterAs,
  givePaper,
  handBack,
  handIn,
  joinCodeOf,
  kept,
  makeGroup,
  pasteStudents,
  seeResult,
  stage,
  startPaper,
} from './steps';

/** A picture as a phone or a scanner would give it. */
const picture = { name: 'chart.png', mimeType: 'image/png', buffer: readFileSync('demo/pictures/bay.png') };
/** Two pages with a word each (ISO 32000-1, 7.3 to 7.7); without a table of its objects, which readers make up for. */
const twoPages = `%PDF-1.4
1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj
2 0 obj<</Type/Pages/Count 2/Kids[3 0 R 4 0 R]>>endobj
3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 6 0 R/Resources<</Font<</F 5 0 R>>>>>>endobj
4 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 6 0 R/Resources<</Font<</F 5 0 R>>>>>>endobj
5 0 obj<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>endobj
6 0 obj<</Length 42>>stream
BT /F 24 Tf 40 100 Td (Leave at HW) Tj ET 
endstream endobj
trailer<</Root 1 0 R>>
%%EOF`;
const plan = { name: 'plan.pdf', mimeType: 'application/pdf', buffer: Buffer.from(twoPages) };

const questionOn = (page: Page, number: number) =>
  page.getByRole('region', { name: `Question ${number}`, exact: true });

/** Draws a line across a sheet with the mouse. */
async function drawAcross(page: Page, sheet: Locator) {
  await sheet.scrollIntoViewIfNeeded();
  const box = await sheet.boundingBox();
  if (!box) throw new Error('no sheet');
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.8);
  await page.mouse.down();
  for (let step = 1; step <= 12; step++)
    await page.mouse.move(box.x + box.width * (0.2 + step * 0.04), box.y + box.height * (0.8 - step * 0.04));
  await page.mouse.up();
}

test('working is drawn, typed as maths and photographed on a phone, a file is handed in, and both are marked', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await makeGroup(page, 'Chartwork');
  await pasteStudents(page, ['Name', 'Silva, Ana']);
  const code = await joinCodeOf(page, 'Silva');
  await beginPaper(page, 'Chartwork');
  const more = page.getByRole('group', { name: 'New question' });
  await more.getByRole('button', { name: 'Working', exact: true }).click();
  await page.getByLabel('Text of question 1').fill('Plot the course.');
  await page.getByLabel('Add a picture to draw on', { exact: true }).setInputFiles(picture);
  // A picture without words stops the paper, until it has them.
  await expect(page.getByText(/a picture has no description/)).toBeVisible();
  await page.getByLabel('Describe the picture for students who can’t see it').fill('A chart of a bay');
  await page.getByLabel('Model answer').fill('061°');
  await page.getByLabel('Scheme line A').fill('Course drawn');
  await page.getByLabel('Points for line A').fill('3');
  await more.getByRole('button', { name: 'File', exact: true }).click();
  await page.getByLabel('Text of question 2').fill('Hand in your plan.');
  await page.getByLabel('Scheme line A').fill('Tides');
  await page.getByLabel('Points for line A').fill('3');
  await givePaper(page, 'Chartwork');

  const student = await enterAs(page.context(), code);
  await student.setViewportSize({ width: 360, height: 740 });
  await startPaper(student);
  const first = questionOn(student, 1);
  await expect(first.getByRole('img', { name: 'A chart of a bay' })).toBeVisible();
  await drawAcross(student, first.getByRole('img', { name: /^Your drawing/ }));
  await expect(first.getByRole('img', { name: 'Your drawing, 1 line' })).toBeVisible();
  await first.getByRole('button', { name: 'in maths' }).press('Enter');
  const maths = first.locator('math-field');
  await expect(maths).toBeVisible();
  await maths.focus();
  await expect(maths).toBeFocused();
  await student.keyboard.press('Tab');
  await expect(maths).not.toBeFocused();
  await student.keyboard.press('Shift+Tab');
  await expect(maths).toBeFocused();
  await student.keyboard.type('d/t=v');
  await expect.poll(() => maths.evaluate((field) => Reflect.get(field, 'value') as string)).toContain('frac');
  await first
    .getByLabel('Add a photo of your page')
    .or(first.getByRole('button', { name: 'with a photo' }))
    .first()
    .click();
  await first.getByLabel('Add a photo of your page', { exact: true }).setInputFiles(picture);
  await expect(first.getByRole('img', { name: 'chart.png' })).toBeVisible();
  const second = questionOn(student, 2);
  const put = second.getByLabel(/^Add a picture or PDF/);
  await put.setInputFiles({ ...plan, name: 'plan.exe', mimeType: 'application/x-msdownload' });
  await expect(second.getByRole('alert')).toContainText('plan.exe isn’t accepted here');
  await put.setInputFiles(plan);
  await expect(second.getByRole('link', { name: /plan\.pdf/ })).toBeVisible();
  expect(await student.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  await expect(student.getByText('2 of 2 answered')).toBeVisible();
  // Nothing is lost with the page: all of it is there again.
  await expect(student.getByText(/^saved/).first()).toBeVisible();
  await student.reload();
  await student.getByLabel('Your join code').fill(code);
  await student.getByRole('button', { name: 'Continue' }).click();
  await student.getByRole('button', { name: 'Yes, this is me' }).click();
  await startPaper(student);
  await expect(first.getByRole('img', { name: 'Your drawing, 1 line' })).toBeVisible();
  await expect(first.getByRole('img', { name: 'chart.png' })).toBeVisible();
  await handIn(student);

  await stage(page, 'Mark');
  await expect(page.getByRole('img', { name: 'A drawing of 1 line' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'file 1.png' })).toBeVisible();
  await page.keyboard.press('a');
  await expect(page.getByLabel('Points for the current answers')).toHaveValue('3');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: /file 1\.pdf/ })).toBeVisible();
  await page.keyboard.press('2');
  await expect(page.getByLabel('Points for the current answers')).toHaveValue('2');
  await test.step('marks are laid over a page of the file, the drawing and the photo, by keys and by mouse', async () => {
    await page.keyboard.press('F9');
    const firstPage = page.getByRole('application', { name: /^file 1\.pdf, page 1\. No marks yet/ });
    await expect(firstPage).toBeFocused();
    await page.keyboard.press('PageDown');
    const secondPage = page.getByRole('application', { name: /^file 1\.pdf, page 2/ });
    await expect(page.getByText('Page 2 of 2')).toBeVisible();
    await secondPage.focus();
    await page.keyboard.press('t');
    await expect(secondPage).toHaveAccessibleName(/1 tick$/);
    await page.keyboard.press('Escape');
    await page
      .getByRole('navigation', { name: 'Questions' })
      .getByRole('button', { name: /^Question 1,/ })
      .click();
    await expect(page.getByRole('img', { name: 'A drawing of 1 line' })).toBeVisible();
    await page.getByRole('button', { name: 'Mark on it' }).click();
    const drawing = page.getByRole('application', { name: /^Drawing\./ });
    const photo = page.getByRole('application', { name: /^file 1\.png/ });
    await drawing.focus();
    await page.keyboard.press('p');
    for (let n = 0; n < 4; n++) await page.keyboard.press('ArrowRight');
    await page.keyboard.press('p');
    await expect(drawing).toHaveAccessibleName(/1 line$/);
    await page.getByRole('button', { name: /^Arrow/ }).click();
    await photo.scrollIntoViewIfNeeded();
    const box = await photo.boundingBox();
    if (!box) throw new Error('no photo');
    await page.mouse.move(box.x + 30, box.y + 30);
    await page.mouse.down();
    await page.mouse.move(box.x + 90, box.y + 70, { steps: 5 });
    await page.mouse.up();
    await expect(photo).toHaveAccessibleName(/1 arrow$/);
    await page.getByRole('button', { name: /^Note/ }).click();
    await page.mouse.click(box.x + 60, box.y + 90);
    await page.keyboard.type('Label this island');
    await page.keyboard.press('Enter');
    await expect(photo).toHaveAccessibleName(/1 arrow, 1 note$/);
    // What was set by mistake is taken back.
    await page.keyboard.press('x');
    await kept(page, 'Question 1: Cross set');
    await page.keyboard.press('Control+z');
    await expect(photo).toHaveAccessibleName(/1 arrow, 1 note$/);
    await page.keyboard.press('Escape');
  });
  await stage(page, 'Analyse');
  await page.getByRole('button', { name: /^1 Plot the course/ }).click();
  await expect(page.getByText('in maths, drawn, a photo')).toBeVisible();
  await handBack(page);
  await seeResult(student);
  await expect(student.getByText(/^5 of 6 points/)).toBeVisible();
  await expect(questionOn(student, 1).getByRole('img', { name: 'A drawing of 1 line' })).toBeVisible();
  await expect(questionOn(student, 1).getByRole('img', { name: 'chart.png' })).toBeVisible();
  const layers = (number: number) =>
    questionOn(student, number).getByRole('img', { name: /^Marks of the marker/ });
  await expect(layers(1)).toHaveCount(2);
  await expect(layers(1).first()).toHaveAccessibleName('Marks of the marker: 1 line');
  await expect(questionOn(student, 1).getByRole('list', { name: 'Words of the marker' })).toHaveText(
    'Label this island',
  );
  await expect(questionOn(student, 2).getByText('Page 2 of 2, marks on 2')).toBeVisible();
  await test.step('on paper, the pages that were handed in stand behind the script', async () => {
    await page.bringToFront();
    const sitting = /sittings\/([^/]+)/.exec(page.url())?.[1] ?? '';
    await page.goto(`${emptyDesk}/sittings/${sitting}/export?what=scripts`);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save one PDF of 1 script' }).click(),
    ]);
    const text = await pdfText(await download.path());
    expect(text).toContain('plan.pdf (2 pages, behind this script)');
    expect(text.match(/Leave at HW/g)).toHaveLength(2);
  });
  await expect(layers(2)).toHaveAccessibleName('Marks of the marker: 1 tick');
  expect(await student.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(360);
  await student.screenshot({ path: test.info().outputPath('marks-on-a-phone.png'), fullPage: true });
});

test('a picture stands in a question, needs words, and reaches the student', async ({ page }) => {
  await makeGroup(page, 'Pictures');
  await pasteStudents(page, ['Name', 'Haddad, Samir']);
  const code = await joinCodeOf(page, 'Haddad');
  await beginPaper(page, 'Buoys');
  await page
    .getByRole('group', { name: 'New question' })
    .getByRole('button', { name: 'True or false' })
    .click();
  const stem = page.getByRole('textbox', { name: 'Text of question 1' });
  await stem.fill('This is a bay.');
  await page.getByRole('toolbar', { name: 'Markup' }).getByLabel('Picture').setInputFiles(picture);
  await expect(stem.getByRole('img')).toHaveCount(1);
  await page.getByRole('radio', { name: 'True is right' }).check();
  await expect(page.getByText(/a picture has no description/)).toBeVisible();
  await expect(page.getByRole('link', { name: 'Give out' })).toHaveCount(0);
  await stem.getByRole('img').click();
  await page.getByLabel('Describe the picture for students who can’t see it').fill('A bay with an island');
  await expect(page.getByText('Nothing to fix')).toBeVisible();
  // Pasted and dropped as well; a huge one is scaled down.
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Open question 1:' }).click();
  for (const how of ['paste', 'drop'] as const) {
    await stem.evaluate(async (field, kind) => {
      const canvas = document.createElement('canvas');
      canvas.width = 3000;
      canvas.height = kind === 'paste' ? 1500 : 600;
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
      const data = new DataTransfer();
      data.items.add(new File([blob ?? ''], `${kind}.png`, { type: 'image/png' }));
      const box = field.getBoundingClientRect();
      const at = { clientX: box.x + 5, clientY: box.y + 5, bubbles: true, cancelable: true };
      field.dispatchEvent(
        kind === 'paste'
          ? new ClipboardEvent('paste', { ...at, clipboardData: data })
          : new DragEvent('drop', { ...at, dataTransfer: data }),
      );
    }, how);
    await expect(stem.getByRole('img', { name: 'picture without a description' })).toHaveCount(1);
    // The words of the picture before stand there until those of the new one do.
    await expect(page.getByLabel('decoration only')).not.toBeChecked();
    await page.getByLabel('decoration only').check();
    await expect(stem.getByRole('img', { name: 'picture without a description' })).toHaveCount(0);
  }
  const sizes = await stem
    .locator('img')
    .evaluateAll((images) => images.map((image) => image.getAttribute('width')));
  expect(sizes.sort()).toEqual(['2000', '2000', '720']);
  await givePaper(page, 'Pictures');
  const student = await enterAs(page.context(), code);
  await startPaper(student);
  const shown = questionOn(student, 1).getByRole('img', { name: 'A bay with an island' });
  await expect(shown).toBeVisible();
  await expect.poll(() => shown.evaluate((image) => (image as HTMLImageElement).naturalWidth)).toBe(720);
});

test('a package goes out, comes into an empty desk, is sat there, and scores the same', async ({ page }) => {
  const answer = async (on: Page) => {
    await questionOn(on, 1).getByRole('radio', { name: /True/ }).check();
    await questionOn(on, 2).getByRole('textbox').fill('13,8 nm');
    await questionOn(on, 3).getByRole('textbox').fill('213°');
    await questionOn(on, 8)
      .getByRole('radio', { name: /slack water/ })
      .check();
    for (const item of await questionOn(on, 7).getByRole('combobox').all())
      await item.selectOption({ label: 'Before' });
  };
  const wanted = ['1 of 1', '1 of 2', '2 of 2', null, null, null, '0 of 2', '1 of 1'];
  await page.goto('/papers/paper-passage/look');
  await answer(page);
  await page.getByLabel('Score these answers').check();
  for (const [index, words] of wanted.entries())
    if (words) await expect(questionOn(page, index + 1)).toContainText(words);

  await page.goto('/papers/paper-passage/sheet');
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export package' }).click();
  const path = await (await saving).path();
  await expect(page.getByRole('region', { name: 'What other programs won’t read' })).toContainText('units');

  await makeGroup(page, 'From afar');
  await pasteStudents(page, ['Name', 'Okoye, Ify']);
  const code = await joinCodeOf(page, 'Okoye');
  await page.goto(`${emptyDesk}/packages`);
  const choose = page.getByLabel('Choose package', { exact: true });
  await choose.setInputFiles({
    name: 'no.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from('PK no zip'),
  });
  await expect(page.getByRole('alert')).toContainText('Nothing was changed');
  await choose.setInputFiles({
    name: 'passage.zip',
    mimeType: 'application/zip',
    buffer: readFileSync(path),
  });
  await expect(page.getByText('Everything in it can be imported.')).toBeVisible();
  await page.getByRole('button', { name: 'Import 1 paper' }).click();
  await kept(page, '1 paper imported from a package');
  await expect(page.getByText('Nothing to fix')).toBeVisible();
  await givePaper(page, 'From afar');

  const student = await enterAs(page.context(), code);
  await startPaper(student);
  await answer(student);
  await expect(questionOn(student, 9).getByRole('img', { name: /^A chart of a bay/ })).toBeVisible();
  await expect(student.getByText('5 of 10 answered')).toBeVisible();
  await handIn(student);
  // What waits for a hand was left blank; Enter says so.
  await stage(page, 'Mark');
  for (const question of [9, 10]) {
    await expect(page.getByRole('heading', { name: new RegExp(`^Question ${question}, `) })).toBeVisible();
    await page.keyboard.press('Enter');
  }
  await handBack(page);
  await seeResult(student);
  for (const [index, words] of wanted.entries())
    if (words) await expect(questionOn(student, index + 1)).toContainText(words);
});
