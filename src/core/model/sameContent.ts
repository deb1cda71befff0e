import { PaperContent } from './paper';

/** True when two papers hold the same, whatever their version, dates or links to the bank. */
export function sameContent(a: PaperContent, b: PaperContent): boolean {
  return contentText(a) === contentText(b);
}

function contentText(paper: PaperContent): string {
  return JSON.stringify(PaperContent.parse(paper), (key, value: unknown) =>
    key === 'bankId' ? undefined : value,
  );
}
