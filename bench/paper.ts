import { createCanvas } from '@napi-rs/canvas';
import { writeFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { chanceFrom } from '@/core/basics/chance';
import { laidOut } from '@/core/intake/paper/layout';
import { answerPaperPdf, measureWith } from '@/core/intake/paper/paperPdf';
import { readPage } from '@/core/intake/paper/readPage';
import { codeRect, codeText } from '@/core/intake/paper/sheet';
import { anyPen, filledPage } from '@/core/intake/standIn/madeUpCopy';
import { phoneFaults, scanned, usualFaults } from '@/core/intake/standIn/scanned';
import { kindOf, type Question } from '@/core/kinds';
import { oneChoice } from '@/core/kinds/oneChoice';
import { openText } from '@/core/kinds/openText';
import type { AnswerPaper } from '@/core/model/answerPaper';
import {
  codeOf,
  dotsPerMm,
  draw,
  findCodes,
  grayFromFile,
  grayOf,
  jpegOf,
  nodeKit,
} from '../scripts/paperNode';
import { row } from './measure';

/** Printed papers of a made-up class, scanned by the stand-in and read: 92 students × 4 pages, 20 questions to tick. */

const students = Number(process.argv[2] ?? 92);
const rounds = Number(process.argv[3] ?? 1);
const keep = process.argv[4];

let n = 0;
const newId = () => `i${++n}`;
const questions: Question[] = [
  ...Array.from({ length: 20 }, (_, at): Question => ({
    ...oneChoice.empty(newId),
    kind: 'oneChoice',
    id: `q${at}`,
    stem: `Question ${at + 1}: which of these is seen first when a vessel comes from the north at night, and why is it so?`,
    options: Array.from({ length: at % 2 ? 5 : 4 }, (__, option) => ({
      id: `o${option}`,
      text: `The ${['red', 'green', 'white', 'yellow', 'blue'][option]} light of the outer mark, at ${option + 2} cables`,
      comment: '',
    })),
  })),
  ...Array.from({ length: 2 }, (_, at): Question => ({
    ...openText.empty(newId),
    kind: 'openText',
    id: `w${at}`,
    stem: 'Say in a few sentences how you would come in.',
    points: 6,
  })),
];

const measure = await measureWith(nodeKit);
const pages = laidOut(
  questions.map((question) => kindOf(question).forStudent(question, 'A')),
  {
    title: 'Night pilotage',
    instructions: '',
    rule: 'Cross the box of your answer. To take a cross back, fill its box and cross another.',
    number: 'Number',
    points: (points) => `${points} p`,
  },
  measure,
);
const print: AnswerPaper = {
  ...{
    id: 'bench-print01',
    sittingId: 's',
    paperVersion: 1,
    at: '2026-11-27T10:00:00.000Z',
    name: '',
    seed: 'A',
  },
  pages: pages.map(({ regions }) => regions),
  copies: Array.from({ length: students }, (_, at) => `student${at}`),
};
const began = performance.now();
const pdf = await answerPaperPdf(
  pages,
  print.copies.map((id, at) => ({ number: at + 1, name: `Student ${id}` })),
  { printId: print.id, title: 'Night pilotage', name: 'Name', page: (page, of) => `page ${page} of ${of}` },
  nodeKit,
);
row(
  `answer papers as PDF, ${students} × ${pages.length} pages`,
  `${((performance.now() - began) / 1000).toFixed(1)} s, ${(pdf.length / 1e6).toFixed(1)} MB`,
);
if (keep) writeFileSync(`${keep}/papers.pdf`, pdf);

// Pages of one copy, drawn once; the code of each copy is drawn over it.
const document = await getDocument({ data: Uint8Array.from(pdf), isEvalSupported: false }).promise;
const blanks = [];
for (let page = 1; page <= pages.length; page++) {
  const drawn = await document.getPage(page);
  const viewport = drawn.getViewport({ scale: 150 / 72 });
  const canvas = createCanvas(Math.round(viewport.width), Math.round(viewport.height));
  await drawn.render({ canvas: canvas as never, canvasContext: canvas.getContext('2d') as never, viewport })
    .promise;
  blanks.push(canvas);
}

const chance = chanceFrom(17);
const prints = new Map([[print.id, print]]);
const counts = { pages: 0, right: 0, wrong: 0, asked: 0, boxes: 0, wrongBoxes: 0, doubtful: 0 };
let reading = 0;
const wrongs: string[] = [];
for (let round = 0; round < rounds; round++)
  for (let copy = 1; copy <= students; copy++) {
    const pen = anyPen(chance);
    for (const [index, blank] of blanks.entries()) {
      const canvas = createCanvas(blank.width, blank.height);
      const context = canvas.getContext('2d');
      context.drawImage(blank, 0, 0);
      context.fillStyle = '#fff';
      context.fillRect(
        (codeRect.x - 1) * dotsPerMm,
        (codeRect.y - 1) * dotsPerMm,
        (codeRect.w + 2) * dotsPerMm,
        (codeRect.h + 2) * dotsPerMm,
      );
      context.fillStyle = '#000';
      const cells = await codeOf(codeText({ printId: print.id, copy, page: index + 1 }));
      const side = codeRect.w / cells.length;
      cells.forEach((line, y) =>
        line.forEach((dark, x) => {
          if (dark)
            context.fillRect(
              (codeRect.x + x * side) * dotsPerMm,
              (codeRect.y + y * side) * dotsPerMm,
              side * dotsPerMm + 0.3,
              side * dotsPerMm + 0.3,
            );
        }),
      );
      const page = filledPage(print.pages[index] ?? [], (_q, _p, boxes) => [chance.pick(boxes)], pen, chance);
      draw(canvas, page.strokes);
      const faults = chance.happens(0.25) ? phoneFaults : usualFaults;
      const jpeg = jpegOf(scanned(grayOf(canvas), faults, chance), 60);
      if (keep && copy <= 3) writeFileSync(`${keep}/scan-${copy}-${index + 1}.jpg`, jpeg);
      const start = performance.now();
      const gray = await grayFromFile(jpeg);
      const outcome = await readPage(gray, prints, findCodes);
      reading += performance.now() - start;
      counts.pages++;
      if (outcome.is !== 'read') {
        counts.asked++;
        wrongs.push(`page ${copy}/${index + 1}: ${outcome.is}`);
        continue;
      }
      if (outcome.code.copy === copy && outcome.code.page === index + 1) counts.right++;
      else counts.wrong++;
      const truth = new Map(page.boxes.map((each) => [each.region, each.truth]));
      for (const { region, state, ink, frame } of outcome.boxes) {
        counts.boxes++;
        if (state === 'doubtful') {
          counts.doubtful++;
          if (wrongs.length < 60)
            wrongs.push(
              `asked ${copy}/${index + 1} ${region.questionId} ${region.box}: truth ${truth.get(region)} ink ${ink.toFixed(3)} frame ${frame.toFixed(2)} pen ${pen.grey}/${pen.width} marks ${outcome.placed.marks} bent ${outcome.placed.bentMm.toFixed(2)}`,
            );
        } else if (state !== truth.get(region)) {
          counts.wrongBoxes++;
          wrongs.push(
            `WRONG ${copy}/${index + 1} ${region.questionId} ${region.box}: truth ${truth.get(region)} read ${state} ink ${ink.toFixed(3)} frame ${frame.toFixed(2)} pen ${pen.grey}`,
          );
        }
      }
    }
  }
const share = (part: number, of: number) => `${((part / of) * 100).toFixed(2)} %`;
row(
  'pages given to the right copy and page by themselves (wanted: 99.5 %)',
  share(counts.right, counts.pages),
);
row('pages given to a wrong one (wanted: 0)', String(counts.wrong));
row(`boxes read wrongly without asking, of ${counts.boxes} (wanted: 0)`, String(counts.wrongBoxes));
row('boxes asked about (wanted: 1 %)', share(counts.doubtful, counts.boxes));
row(`${counts.pages} pages read`, `${(reading / 1000).toFixed(1)} s`);
row('memory', `${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`);
if (wrongs.length > 0) console.error(wrongs.slice(0, 40).join('\n'));
