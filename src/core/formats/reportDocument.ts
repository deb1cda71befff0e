import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';

/** What a report holds, in words and figures that are ready to be printed. */
export interface ReportContent {
  title: string;
  /** When and for whom. */
  about: string;
  /** The teacher's own words. */
  words: string;
  totals: readonly (readonly [word: string, value: string])[];
  /** How far the total can be trusted, and what looks wrong. */
  sentences: readonly string[];
  /** Pictures as SVG, each with its caption. */
  pictures: readonly { svg: string; caption: string }[];
  tables: readonly { title: string; heading: readonly string[]; rows: readonly (readonly string[])[] }[];
}

/** A report of a sitting, A4 upright, that reads in black and white. */
export function reportDocument(report: ReportContent): TDocumentDefinitions {
  const { title, about, words, totals, sentences, pictures, tables } = report;
  const space = (top: number): [number, number, number, number] => [0, top, 0, 0];
  return {
    info: { title },
    pageSize: 'A4',
    pageMargins: [46, 44, 46, 48],
    defaultStyle: { fontSize: 9.5, color: '#000000', lineHeight: 1.15 },
    footer: (page, pages) => ({
      text: `${title} · page ${page} of ${pages}`,
      alignment: 'center',
      fontSize: 8,
      margin: space(14),
    }),
    content: [
      { text: title, fontSize: 18, bold: true },
      { text: about, margin: [0, 2, 0, 8] },
      ...words
        .split('\n')
        .filter((line) => line.trim() !== '')
        .map((line): Content => ({ text: line, margin: [0, 0, 0, 4] })),
      {
        columns: totals.map(([word, value]) => ({
          stack: [
            { text: value, fontSize: 13, bold: true },
            { text: word, fontSize: 8 },
          ],
        })),
        columnGap: 6,
        margin: [0, 6, 0, 8],
      },
      ...sentences.map((text): Content => ({ text, margin: [0, 0, 0, 3] })),
      ...pictures.map(({ svg, caption }): Content => ({
        stack: [
          { text: caption, bold: true, margin: [0, 6, 0, 2] },
          { svg, width: 500 },
        ],
        unbreakable: true,
      })),
      ...tables.flatMap(({ title: name, heading, rows }): Content[] => [
        { text: name, fontSize: 12, bold: true, margin: [0, 12, 0, 4] },
        {
          layout: 'lightHorizontalLines',
          table: {
            headerRows: 1,
            dontBreakRows: true,
            widths: heading.map((_, column) => (column === 0 ? '*' : 'auto')),
            body: [
              heading.map((text, column) => cell(text, column, true)),
              ...rows.map((row) => row.map((text, column) => cell(text, column, false))),
            ],
          },
        },
      ]),
    ],
  };
}

const cell = (text: string, column: number, bold: boolean): TableCell => ({
  text,
  bold,
  fontSize: 8.5,
  alignment: column === 0 ? 'left' : 'right',
});
