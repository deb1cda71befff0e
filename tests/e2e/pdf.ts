import { readFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/** All text of a PDF, page after page, as a reader that had no part in making it finds it. */
export async function pdfText(path: string): Promise<string> {
  const pdf = await getDocument({ data: new Uint8Array(readFileSync(path)), verbosity: 0 }).promise;
  const texts: string[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const { items } = await (await pdf.getPage(number)).getTextContent();
    texts.push(items.map((item) => ('str' in item ? item.str : '')).join(' '));
  }
  return texts.join('\n');
}
