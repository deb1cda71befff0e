import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';

/** One question for the class, as it is printed. */
export interface Slide {
  number: string;
  stem: string;
  /** "42% of the points" */
  result: string;
  rows: { label: string; count: number; right: boolean }[];
  key: string;
  comment: string;
}

const ink = '#2b2620';

/** What is gone through with the class, a question a page, A4 across: what was answered without names, the key, the comment. */
export function slidesDocument(title: string, slides: readonly Slide[]): TDocumentDefinitions {
  return {
    info: { title },
    pageSize: 'A4',
    pageOrientation: 'landscape',
    pageMargins: [48, 40, 48, 40],
    defaultStyle: { fontSize: 16, color: ink },
    footer: (page, pages) => ({
      text: `${title} · ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 10,
      margin: [0, 10, 0, 0],
    }),
    content: slides.map((slide, index) => slidePage(slide, index > 0)),
  };
}

function slidePage({ number, stem, result, rows, key, comment }: Slide, breaks: boolean): Content {
  const most = Math.max(1, ...rows.map(({ count }) => count));
  return {
    ...(breaks && { pageBreak: 'before' }),
    stack: [
      { text: `${number}  ${stem}`, fontSize: 24, bold: true },
      { text: result, margin: [0, 6, 0, 14] },
      ...rows.map(({ label, count, right }): Content => ({
        margin: [0, 3, 0, 3],
        columns: [
          { width: 280, text: right ? `✓ ${label}` : label, bold: right },
          {
            width: 320,
            canvas: [
              { type: 'rect', x: 0, y: 3, w: (300 * count) / most, h: 14, color: right ? ink : '#8c8272' },
            ],
          },
          { width: 60, text: String(count), alignment: 'right' },
        ],
      })),
      ...(key
        ? [{ text: `Accepted: ${key}`, margin: [0, 14, 0, 0] as [number, number, number, number] }]
        : []),
      ...(comment
        ? [{ text: comment, margin: [0, 8, 0, 0] as [number, number, number, number], italics: true }]
        : []),
    ],
  };
}
