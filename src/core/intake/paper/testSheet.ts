import type { AnswerPaper, Region } from '../../model/answerPaper';
import type { TickState } from '../../model/scan';
import type { Drawn, LaidPage } from './drawn';
import type { PageOutcome } from './readPage';
import { body, boxSize } from './sheet';

/** A sheet to try a scanner with: boxes that are printed as students fill them, and some to fill with their pens. */

/** The rows of a test sheet, and what has to be read in their boxes. */
export const testRows = {
  empty: 'empty',
  crossed: 'ticked',
  pale: 'ticked',
  filled: 'filled',
  /** Crossed by hand, with the pens of the class; a row left empty was not tried. */
  pens: 'ticked',
} as const satisfies Record<string, TickState>;
export type TestRow = keyof typeof testRows;
const rowNames = Object.keys(testRows) as TestRow[];

const boxesEach = 10;
const [firstY, rowMm, boxX, stepMm] = [78, 20, body.x + 60, 11];

const boxAt = (row: number, at: number) => ({
  ...{ x: boxX + at * stepMm, y: firstY + row * rowMm },
  ...{ w: boxSize, h: boxSize },
});

/** What stands on a test sheet. */
export interface TestSheetWords {
  title: string;
  how: readonly string[];
  rows: Record<TestRow, string>;
}

/** The page of a test sheet. */
export function testPage({ title, how, rows }: TestSheetWords): LaidPage {
  const drawn: Drawn[] = [
    { as: 'text', x: body.x, y: body.y + 6, size: 14, text: title, bold: true },
    ...how.map((text, line): Drawn => ({
      as: 'text',
      x: body.x,
      y: body.y + 14 + line * 5,
      size: 9.5,
      text,
    })),
    ...rowNames.flatMap((name, row): Drawn[] => [
      { as: 'text', x: body.x, y: firstY + row * rowMm + 3.6, size: 10.5, text: rows[name] },
      ...Array.from({ length: boxesEach }, (_, at) => inBox(name, boxAt(row, at))).flat(),
    ]),
  ];
  return { drawn, regions: testRegions() };
}

function inBox(row: TestRow, at: { x: number; y: number; w: number; h: number }): Drawn[] {
  const box: Drawn = { as: 'box', ...at };
  if (row === 'filled') return [box, { as: 'filled', ...at }];
  if (row === 'crossed') return [box, { as: 'cross', ...at }];
  if (row === 'pale') return [box, { as: 'cross', ...at, soft: true }];
  return [box];
}

const testRegions = (): Region[] =>
  rowNames.flatMap((name, row) =>
    Array.from({ length: boxesEach }, (_, at) => ({
      ...boxAt(row, at),
      ...{ questionId: '#test', part: name, box: String(at) },
    })),
  );

/** The test sheet as a print, by which its scans are read. It belongs to no sitting. */
export const testPrint: AnswerPaper = {
  ...{
    id: 'scanner-test',
    sittingId: '',
    paperVersion: 1,
    at: '2026-01-01T00:00:00.000Z',
    name: '',
    seed: '',
  },
  ...{ pages: [testRegions()], copies: [null] },
};

/** What a scan of a test sheet shows. */
export interface TestVerdict {
  /** Its corner squares were found. */
  straight: boolean;
  /** By row: boxes read as they are, asked about, and read otherwise. A row of pens that was left empty is not counted. */
  rows: Partial<Record<TestRow, { right: number; asked: number; wrong: number }>>;
}

/** What a scan of a test sheet shows; null where it is another page. */
export function testVerdict(outcome: PageOutcome): TestVerdict | null {
  if (outcome.is === 'noCode' || outcome.code.printId !== testPrint.id) return null;
  if (outcome.is !== 'read') return { straight: false, rows: {} };
  const rows: TestVerdict['rows'] = {};
  for (const name of rowNames) {
    const states = outcome.boxes.filter(({ region }) => region.part === name).map(({ state }) => state);
    if (name === 'pens' && states.every((state) => state === 'empty')) continue;
    const count = (is: (state: TickState) => boolean) => states.filter(is).length;
    rows[name] = {
      right: count((state) => state === testRows[name]),
      asked: count((state) => state === 'doubtful'),
      wrong: count((state) => state !== testRows[name] && state !== 'doubtful'),
    };
  }
  return { straight: true, rows };
}
