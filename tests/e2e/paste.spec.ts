import { expect, test } from '@playwright/test';
import { zipSync, strToU8 } from 'fflate';
import { beginPaper } from './steps';

/** A quiz pasted as text, and one from a document. */

test('a pasted quiz is understood as it is typed, what is not is marked and mended, and it is imported in one step', async ({
  page,
}) => {
  await beginPaper(page, 'Pasted');
  await page.getByRole('link', { name: 'Paste a quiz' }).click();
  const text = page.getByRole('textbox', { name: 'The quiz as text' });
  await text.fill(
    [
      ...['1. Which light shows on the port side? (2 points)', 'a) green', '*b) red', ''],
      ...['Look at the chart.', ''],
      ...['2. True or false: The ebb runs out.', 'Answer: True', ''],
      ...['3. How far in two hours at 6 knots?', 'a) 12 nm', 'b) 3 nm', 'Answer: E'],
    ].join('\n'),
  );
  const margin = page.getByRole('complementary', { name: 'What was understood' });
  await expect(margin.getByRole('heading', { name: '3 questions understood' })).toBeVisible();
  await expect(margin.getByRole('listitem').filter({ hasText: 'port side' })).toContainText(
    'One choice, 2 p',
  );
  await expect(margin.getByRole('listitem').filter({ hasText: 'How far' })).toContainText(
    'Its answer is none of its options',
  );
  // What is not understood leads to its line, and is mended there.
  await margin.getByRole('button', { name: 'Line 5: Look at the chart.' }).click();
  await expect(text).toBeFocused();
  await page.keyboard.press('Delete');
  await expect(margin.getByText(/not understood, left out/)).toHaveCount(0);
  await text.fill((await text.inputValue()).replace('Answer: E', 'Answer: A'));
  await expect(margin.getByText('Its answer is none of its options')).toHaveCount(0);
  await page.getByRole('button', { name: 'Import 3 questions' }).click();
  await page.waitForURL(/\/papers\/[^/]+$/);
  await expect(page.getByText('4 points')).toBeVisible();
  await expect(page.getByText('Which light shows on the port side?')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Which light shows on the port side?')).toHaveCount(0);
});

/** A document as a word processor saves it (ECMA-376, Office Open XML), with a list and a bold option. */
function docx(): Buffer {
  const paragraph = (text: string, bold = false) =>
    `<w:p><w:r>${bold ? '<w:rPr><w:b/></w:rPr>' : ''}<w:t xml:space="preserve">${text}</w:t></w:r></w:p>`;
  const body = [
    paragraph('1. What is a lee shore?'),
    paragraph('a) one the wind blows onto', true),
    paragraph('b) one the wind blows off'),
    paragraph('2. Name the stream that runs out.'),
    paragraph('Answer: ebb'),
  ].join('');
  const ns = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
  return Buffer.from(
    zipSync({
      '[Content_Types].xml': strToU8(
        '<?xml version="1.0"?><Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
      ),
      '_rels/.rels': strToU8(
        '<?xml version="1.0"?><Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/></Relationships>',
      ),
      'word/document.xml': strToU8(
        `<?xml version="1.0"?><w:document ${ns}><w:body>${body}</w:body></w:document>`,
      ),
    }),
  );
}

test('a document is read with what is bold in it; one that is none is named', async ({ page }) => {
  await beginPaper(page, 'From a document');
  await page.getByRole('link', { name: 'Paste a quiz' }).click();
  const choose = (name: string, buffer: Buffer) =>
    page
      .getByLabel('Document with a quiz')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
  await choose('broken.docx', Buffer.from('This is no document'));
  await expect(page.getByRole('alert')).toContainText('broken.docx: it can’t be read as a document');
  await choose('quiz.docx', docx());
  await expect(page.getByRole('textbox', { name: 'The quiz as text' })).toHaveValue(
    /a\) \*\*one the wind blows onto\*\*/,
  );
  const margin = page.getByRole('complementary', { name: 'What was understood' });
  await expect(margin.getByRole('heading', { name: '2 questions understood' })).toBeVisible();
  await expect(margin.getByRole('listitem').filter({ hasText: 'lee shore' })).toContainText('onto');
  await expect(margin.getByRole('listitem').filter({ hasText: 'Name the stream' })).toContainText('ebb');
  await page.getByRole('button', { name: 'Import 2 questions' }).click();
  await page.waitForURL(/\/papers\/[^/]+$/);
  await expect(page.getByText('What is a lee shore?')).toBeVisible();
});
