import { sumBy } from 'remeda';
import type { TestSheetWords, TestVerdict } from '@/core/intake/paper/testSheet';
import type { PileCut } from '@/core/intake/paper/piles';
import type { UnreadScan } from '@/core/model/scan';
import type { NotRead } from '@/core/model/sitting';
import { counted, points } from './format';

/** What is printed on answer papers beside the questions. */
export const paperWords = {
  rule: 'Cross the box of your answer. To take a cross back, fill its box completely and cross another one.',
  name: 'Name',
  number: 'Your student number: in each line cross one figure.',
  points: (worth: number) => (worth === 1 ? '1 point' : `${points(worth)} points`),
  page: (page: number, of: number) => `page ${page} of ${of}`,
};

/** Why an answer on paper is not read yet. */
export const notReadWords: Record<NotRead, string> = {
  pageMissing: 'its page isn’t scanned',
  doubtful: 'what is ticked isn’t clear',
  scansDiffer: 'two scans of its page differ',
  tooManyTicks: 'more is ticked than can be an answer',
  written: 'written by hand',
};

/** Why a scanned page is asked about. */
export const unreadScanWords: Record<UnreadScan, string> = {
  noCode: 'no code of an answer paper was found on it',
  otherPrint: 'it belongs to answer papers of another sitting',
  notStraight: 'its corner squares were not found: it is cut off, or too dark',
  extraPage: 'its paper has all its pages before it',
};

/** What stands on the sheet to try a scanner with. */
export const testSheetWords: TestSheetWords = {
  title: 'Test sheet',
  how: [
    'Print this at full size. Cross the boxes of the last row with the pens your students use.',
    'Then scan it as you will scan the papers, and import the scan: Gribbet says what it read.',
  ],
  rows: {
    empty: 'Left empty',
    crossed: 'Crossed',
    pale: 'Crossed with a pale pencil',
    filled: 'Crossed and taken back',
    pens: 'Your pens: cross all ten',
  },
};

/** "Test sheet: all 40 printed boxes are read as they are; …" */
export function testVerdictWords({ straight, rows: { pens, ...printed } }: TestVerdict): string {
  if (!straight)
    return 'Test sheet: its corner squares were not found. Print at full size, and scan the whole sheet without shadows at its edges.';
  const all = Object.values(printed);
  const [right, asked, wrong] = (['right', 'asked', 'wrong'] as const).map((key) =>
    sumBy(all, (row) => row[key]),
  ) as [number, number, number];
  const boxes = counted(right + asked + wrong, 'printed box', 'printed boxes');
  const read = `${right === right + asked + wrong ? `all ${boxes} are` : `${right} of ${boxes} are`} read as they are`;
  const bad = [
    ...(asked > 0 ? [`${asked} would be asked about`] : []),
    ...(wrong > 0 ? [`${wrong} would be read wrongly`] : []),
  ];
  const own = !pens
    ? 'the row for your pens is empty'
    : pens.right === 10
      ? 'all 10 crosses of your pens are read'
      : `${pens.right} of 10 crosses of your pens are read, ${pens.asked} would be asked about, ${pens.wrong} missed`;
  const verdict =
    wrong > 0 || (pens?.wrong ?? 0) > 0
      ? 'Scan darker or at 200 dots an inch, and use darker pens.'
      : asked > 2 || (pens?.asked ?? 0) > 2
        ? 'It will do, with some boxes to look at.'
        : 'This will do.';
  return `Test sheet: ${[read, ...bad, own].join('; ')}. ${verdict}`;
}

/** Where a new paper begins in a pile without codes. */
export const cutWords: Record<PileCut, (pagesEach: number) => string> = {
  count: (pagesEach) => `after ${counted(pagesEach, 'page')}`,
  blankSheets: () => 'after a blank sheet',
  firstPages: () => 'with a page like the first one',
  stickers: () => 'with a page that has a code sticker',
};

/** "scan.pdf, page 3" */
export const fromWords = ({ file, page }: { file: string; page: number }) => `${file}, page ${page}`;
