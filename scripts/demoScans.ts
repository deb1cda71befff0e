import { GlobalFonts } from '@napi-rs/canvas';
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { symbols } from '@demo/papers/symbols';
import { madeUpAnswer } from '@demo/answering';
import { demoSeed, madeUpPeople } from '@demo/people';
import { assetId } from '@/core/basics/assetBytes';
import { chanceFrom } from '@/core/basics/chance';
import { laidOut } from '@/core/intake/paper/layout';
import { answerPaperPdf, measureWith } from '@/core/intake/paper/paperPdf';
import { asPrinted } from '@/core/intake/paper/paperAttempt';
import { readPage } from '@/core/intake/paper/readPage';
import { hasInk, straightened } from '@/core/intake/paper/straightened';
import { anyPen, filledPage } from '@/core/intake/standIn/madeUpCopy';
import { scanned, usualFaults } from '@/core/intake/standIn/scanned';
import { byRegister, fullName } from '@/core/model/names';
import type { AnswerPaper, Region } from '@/core/model/answerPaper';
import type { Response } from '@/core/kinds';
import { paperWords } from '@/words/onPaper';
import { dotsPerMm, draw, findCodes, grayOf, jpegOf, nodeKit, pagesOf } from './paperNode';

/**
 * `node --import tsx scripts/demoScans.ts`: prints the papers of the demo's sitting on paper, lets half of the class fill them in, scans
 * them, and keeps what was read in demo/onPaper. Made once: the demo is the same everywhere.
 */
const require = createRequire(import.meta.url);
const hands = ['caveat', 'kalam', 'patrick-hand'];
for (const hand of hands)
  GlobalFonts.registerFromPath(
    require.resolve(`@fontsource/${hand}/files/${hand}-latin-400-normal.woff2`),
    hand,
  );

const folder = new URL('../demo/onPaper/', import.meta.url);
mkdirSync(folder, { recursive: true });
for (const name of readdirSync(folder)) rmSync(new URL(name, folder));

const scannedCopies = 15;
const chance = chanceFrom(2_611);
const students = madeUpPeople(chanceFrom(demoSeed), '2026-01-01T00:00:00.000Z')
  .students.filter(({ groupIds }) => groupIds.includes('group3'))
  .sort(byRegister);
const questions = symbols.questions.map(({ question }) => question);
const order = { seed: 'symbols' };
const pages = laidOut(
  questions.map((question) => asPrinted(question, order)),
  { title: symbols.title, instructions: symbols.instructions, ...paperWords },
  await measureWith(nodeKit),
);
const print: AnswerPaper = {
  ...{
    id: 'print-symbols',
    sittingId: 'symbols',
    paperVersion: 1,
    at: '2026-01-01T00:00:00.000Z',
    name: '',
    ...order,
  },
  pages: pages.map(({ regions }) => regions),
  copies: students.map(({ id }) => id),
};
const pdf = await answerPaperPdf(
  pages,
  students.slice(0, scannedCopies).map((student, at) => ({ number: at + 1, name: fullName(student) })),
  { printId: print.id, title: symbols.title, name: paperWords.name, page: paperWords.page },
  nodeKit,
);

const ticked = (response: Response | null, box: string) =>
  response !== null && 'picked' in response && response.picked.includes(box);

const scans: unknown[] = [];
const drawn = await pagesOf(pdf);
for (let copy = 1; copy <= scannedCopies; copy++) {
  const ability = chance.normal();
  const answers = new Map(
    symbols.questions.map((demo) => [demo.question.id, madeUpAnswer(demo, ability, chance).response]),
  );
  const pen = anyPen(chance);
  const hand = chance.pick(hands);
  for (const [index, regions] of print.pages.entries()) {
    const page = index + 1;
    const canvas = drawn[(copy - 1) * print.pages.length + index];
    // One page got lost between the table and the scanner.
    if (!canvas || (copy === 11 && page === 2)) continue;
    const filled = filledPage(
      regions.filter(({ box }) => box !== null),
      (questionId, _part, boxes) => picksOf(copy, questionId, boxes, answers.get(questionId) ?? null),
      pen,
      chance,
      { takenBack: 0.02, blank: 0, stray: 0.1 },
    );
    draw(canvas, filled.strokes);
    const context = canvas.getContext('2d');
    const level = Math.round(pen.grey * 255);
    context.fillStyle = `rgb(${level}, ${level}, ${level + 30})`;
    for (const region of regions)
      if (region.box === null) write(context, region, answers.get(region.questionId) ?? null, hand);
    const gray = scanned(grayOf(canvas), { ...usualFaults, noise: 2, fold: 0, upsideDown: 0 }, chance);
    const outcome = await readPage(gray, new Map([[print.id, print]]), findCodes);
    if (outcome.is !== 'read') throw new Error(`Page ${page} of paper ${copy} is ${outcome.is}`);
    // Smaller than scans are kept otherwise: they come with the app.
    const straight = straightened(gray, outcome.placed.map, 110 / 25.4);
    const jpeg = jpegOf(straight, 45);
    const name = `${copy}-${page}.jpg`;
    writeFileSync(new URL(name, folder), jpeg);
    scans.push({
      ...{ id: `scan-${copy}-${page}`, copy, page, file: name },
      picture: { id: await assetId(jpeg), name, mediaType: 'image/jpeg', size: jpeg.length },
      boxes: outcome.boxes.map(({ state, ink }) => ({ state, ink: Math.round(ink * 1000) / 1000 })),
      areas: regions.filter(({ box }) => box === null).map((area) => hasInk(straight, area, 110 / 25.4)),
    });
  }
}
writeFileSync(new URL('symbols.json', folder), `${JSON.stringify({ print, scans }, null, 1)}\n`);
console.log(`${scans.length} scans in demo/onPaper`);

/** What is ticked; now and then more than can be an answer. */
function picksOf(
  copy: number,
  questionId: string,
  boxes: readonly string[],
  response: Response | null,
): string[] {
  const picked = boxes.filter((box) => ticked(response, box));
  if (copy === 4 && questionId === 's2') return boxes.slice(0, 2);
  if (copy === 9 && questionId === 's5') return boxes.slice(1, 3);
  return picked;
}

/** Words in somebody's hand, line by line. */
function write(
  context: ReturnType<(typeof drawn)[0]['getContext']>,
  { x, y, w }: Region,
  response: Response | null,
  hand: string,
): void {
  const text = response !== null && 'text' in response ? response.text : '';
  context.font = `${Math.round(5.4 * dotsPerMm)}px ${hand}`;
  let line = '';
  let row = 0;
  const put = () => {
    context.save();
    context.translate((x + 4) * dotsPerMm, (y + 6.4 + 8 * row) * dotsPerMm);
    context.rotate((chance.share() - 0.6) * 0.02);
    context.fillText(line, 0, 0);
    context.restore();
    row++;
  };
  for (const word of text.split(/\s+/)) {
    if (line && context.measureText(`${line} ${word}`).width > (w - 10) * dotsPerMm) {
      put();
      line = '';
    }
    line = line ? `${line} ${word}` : word;
  }
  if (line) put();
}
