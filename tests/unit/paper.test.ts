// @vitest-environment node
import { PDFDocument } from '@cantoo/pdf-lib';
import { createCanvas } from '@napi-rs/canvas';
import fc from 'fast-check';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { beforeAll, describe, expect, it } from 'vitest';
import { chanceFrom } from '@/core/basics/chance';
import { homography, mapped, type Gray } from '@/core/intake/paper/geometry';
import { laidOut } from '@/core/intake/paper/layout';
import type { LaidPage } from '@/core/intake/paper/drawn';
import { stickerSheets } from '@/core/intake/paper/stickers';
import { testPage, testPrint, testVerdict } from '@/core/intake/paper/testSheet';
import { testSheetWords } from '@/words/onPaper';
import { wrapped } from '@/core/formats/typeset/wrapped';
import { answerPaperPdf, drawnPdf, measureWith } from '@/core/intake/paper/paperPdf';
import { readPage, readPageAs, type PageOutcome } from '@/core/intake/paper/readPage';
import { hasInk, keptPerMm, straightened } from '@/core/intake/paper/straightened';
import { body, codeFrom, codeText, corners, pageSize, stickerFrom } from '@/core/intake/paper/sheet';
import { filledPage, usualHabits, type FilledPage } from '@/core/intake/standIn/madeUpCopy';
import { phoneFaults, scanned, usualFaults, type ScanFaults } from '@/core/intake/standIn/scanned';
import { kindNames, kindOf } from '@/core/kinds';
import type { AnswerPaper } from '@/core/model/answerPaper';
import {
  dotsPerMm,
  draw,
  findCodes,
  grayFromFile,
  grayOf,
  jpegOf,
  nodeKit,
  pagesOf,
} from '../../scripts/paperNode';
import { samples } from './samples';

const words = {
  title: 'Night pilotage',
  instructions: 'Forty minutes.',
  rule: 'Cross the box of your answer.',
  number: 'Number',
  points: (points: number) => `${points} p`,
};
const names = ['Åberg, Keahi', 'Okafor, Amara', 'Lindqvist, Kai'];
let pages: LaidPage[] = [];
let pdf = new Uint8Array();
let print: AnswerPaper;
let drawn: Awaited<ReturnType<typeof pagesOf>> = [];

beforeAll(async () => {
  const questions = kindNames.map((name) => kindOf(samples[name]).forStudent(samples[name], 'A'));
  pages = laidOut(questions, words, await measureWith(nodeKit));
  print = {
    ...{
      id: 'print-of-test',
      sittingId: 's',
      paperVersion: 1,
      at: '2026-11-27T10:00:00.000Z',
      name: '',
      seed: 'A',
    },
    pages: pages.map(({ regions }) => regions),
    copies: ['s1', 's2', 's3'],
  };
  const copies = names.map((name, at) => ({ number: at + 1, name }));
  const about = {
    printId: print.id,
    title: words.title,
    name: 'Name',
    page: (page: number, of: number) => `${page}/${of}`,
  };
  pdf = new Uint8Array(await answerPaperPdf(pages, copies, about, nodeKit));
  drawn = await pagesOf(pdf);
}, 120_000);

describe('pages to write on', () => {
  it('have every box and area within the page, none over another, and each question on one page', () => {
    for (const { regions } of pages)
      for (const [at, a] of regions.entries()) {
        expect(a.x).toBeGreaterThanOrEqual(body.x);
        expect(a.x + a.w).toBeLessThanOrEqual(body.x + body.w + 1e-9);
        expect(a.y + a.h).toBeLessThanOrEqual(body.bottom + 1e-9);
        for (const b of regions.slice(at + 1)) {
          const apart = a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y;
          expect(apart, `${a.questionId} ${a.part} ${a.box} and ${b.questionId} ${b.part} ${b.box}`).toBe(
            true,
          );
        }
      }
    const pagesOfQuestion = new Map<string, Set<number>>();
    pages.forEach(({ regions }, page) =>
      regions.forEach(({ questionId }) =>
        pagesOfQuestion.set(questionId, (pagesOfQuestion.get(questionId) ?? new Set()).add(page)),
      ),
    );
    expect(pagesOfQuestion.size).toBe(kindNames.length);
    for (const on of pagesOfQuestion.values()) expect(on.size).toBe(1);
  });

  it('as a PDF, read by another library: a copy each, with its name on every page', async () => {
    const read = await getDocument({ data: Uint8Array.from(pdf), verbosity: 0 }).promise;
    expect(read.numPages).toBe(pages.length * names.length);
    for (let page = 1; page <= read.numPages; page++) {
      const { items } = await (await read.getPage(page)).getTextContent();
      const text = items.map((item) => ('str' in item ? item.str : '')).join('');
      expect(text).toContain(names[Math.floor((page - 1) / pages.length)]);
    }
    // What the copies have in common is in the file once.
    expect(pdf.length).toBeLessThan(400_000);
  });

  it('say on each page which it is, so that a reader of codes can tell', async () => {
    for (const [index, page] of drawn.entries()) {
      const codes = (await findCodes(grayOf(page))).map(({ text }) => codeFrom(text));
      expect(codes).toEqual([
        { printId: print.id, copy: Math.floor(index / pages.length) + 1, page: (index % pages.length) + 1 },
      ]);
    }
  });

  it('lines are broken where they are full, and a word that fits nowhere is cut', () => {
    const measure = (text: string) => text.length;
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('a', 'b', ' ', 'ccccc') }),
        fc.integer({ min: 3, max: 20 }),
        (text, width) => {
          const lines = wrapped(text, width, 10, measure);
          expect(lines.every((line) => line.length <= width)).toBe(true);
          expect(lines.join('').replace(/ /g, '')).toBe(text.replace(/ /g, ''));
        },
      ),
    );
  });

  it('a code of another thing is none of ours', () => {
    expect(codeFrom(codeText({ printId: 'a-b_c', copy: 12, page: 3 }))).toEqual({
      printId: 'a-b_c',
      copy: 12,
      page: 3,
    });
    for (const text of ['', 'GP1:a', 'https://example.org', 'GP1:a:0x1:2', `GP1:${'a'.repeat(65)}:1:1`])
      expect(codeFrom(text)).toBeNull();
  });
});

describe('a projective map', () => {
  // Source: Hartley and Zisserman, Multiple View Geometry, 2nd ed., 2.3: four points in general position fix it.
  it('takes four points, and every other on their lines, to where they were sent', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -20, max: 20 }), { minLength: 8, maxLength: 8 }), (by) => {
        const from = [
          [0, 0],
          [200, 0],
          [200, 300],
          [0, 300],
        ].map(([x = 0, y = 0]) => ({ x, y }));
        const to = from.map(({ x, y }, at) => ({
          x: x * 2 + (by[at * 2] ?? 0),
          y: y * 2 + (by[at * 2 + 1] ?? 0),
        }));
        const map = homography(from, to);
        if (!map) throw new Error('there is a map');
        from.forEach(({ x, y }, at) => {
          const there = mapped(map, x, y);
          expect(there.x).toBeCloseTo(to[at]?.x ?? 0, 6);
          expect(there.y).toBeCloseTo(to[at]?.y ?? 0, 6);
        });
        // Lines stay lines: three points of one lie on one.
        const [a, b, c] = [mapped(map, 20, 30), mapped(map, 60, 90), mapped(map, 140, 210)];
        expect((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)).toBeCloseTo(0, 4);
      }),
    );
  });

  it('points on one line fix none', () => {
    const line = [0, 1, 2, 3].map((x) => ({ x, y: x }));
    expect(homography(line, line)).toBeNull();
  });
});

/** A page of a copy, filled in by a made-up student, as a scanner gives it. */
function scan(index: number, faults: ScanFaults, seed: number): { gray: Gray; page: FilledPage } {
  const chance = chanceFrom(seed);
  const source = drawn[index];
  if (!source) throw new Error('there is a page');
  const canvas = createCanvas(source.width, source.height);
  canvas.getContext('2d').drawImage(source, 0, 0);
  const page = filledPage(
    print.pages[index % pages.length] ?? [],
    (_question, _part, boxes) => [chance.pick(boxes)],
    { grey: 0.3, width: 0.5 },
    chance,
    { ...usualHabits, takenBack: 0.2 },
  );
  draw(canvas, page.strokes);
  return { gray: scanned(grayOf(canvas), faults, chance), page };
}

const read = (gray: Gray): Promise<PageOutcome> => readPage(gray, new Map([[print.id, print]]), findCodes);

describe('scans of the pages', () => {
  it.each([
    ['from a scanner', usualFaults],
    ['upside down', { ...usualFaults, upsideDown: 1 }],
    ['by a phone, in perspective', phoneFaults],
    ['in deep shadow', { ...usualFaults, shadow: 0.45 }],
    ['with much noise', { ...usualFaults, noise: 11 }],
  ])(
    '%s: each is known, and no box is read wrongly without asking',
    async (_name, faults) => {
      const found = { boxes: 0, asked: 0 };
      for (const index of drawn.keys()) {
        const { gray, page } = scan(index, faults, 100 + index);
        const outcome = await read(await grayFromFile(jpegOf(gray, 60)));
        if (outcome.is !== 'read') throw new Error(`page ${index + 1} is ${outcome.is}`);
        expect(outcome.code).toEqual({
          printId: print.id,
          copy: Math.floor(index / pages.length) + 1,
          page: (index % pages.length) + 1,
        });
        const truth = new Map(page.boxes.map((each) => [each.region, each.truth]));
        for (const { region, state } of outcome.boxes) {
          found.boxes++;
          if (state === 'doubtful') found.asked++;
          else expect(state, `${region.questionId} ${region.box}`).toBe(truth.get(region));
        }
      }
      expect(found.boxes).toBeGreaterThan(60);
      expect(found.asked).toBeLessThanOrEqual(found.boxes * 0.03);
    },
    120_000,
  );

  it('a page of another print, one without a code, and one with its corners cut off are told apart', async () => {
    const { gray } = scan(0, usualFaults, 7);
    const other = await readPage(gray, new Map(), findCodes);
    expect(other).toMatchObject({ is: 'otherPrint', code: { printId: print.id } });
    expect(await read({ width: 400, height: 600, data: new Uint8Array(240_000).fill(240) })).toEqual({
      is: 'noCode',
    });
    const cut = createCanvas(drawn[0]?.width ?? 0, drawn[0]?.height ?? 0);
    const context = cut.getContext('2d');
    if (drawn[0]) context.drawImage(drawn[0], 0, 0);
    context.fillStyle = '#fff';
    for (const { x, y, w, h } of corners.slice(2))
      context.fillRect((x - 2) * dotsPerMm, (y - 2) * dotsPerMm, (w + 4) * dotsPerMm, (h + 4) * dotsPerMm);
    expect(await read(grayOf(cut))).toMatchObject({ is: 'notStraight', code: { copy: 1, page: 1 } });
    expect(pageSize).toEqual({ w: 210, h: 297 });
  });

  it('a test sheet that is scanned well is read as it was printed, and one without its corners is named', async () => {
    const page = testPage(testSheetWords);
    const sheet = await answerPaperPdf(
      [page],
      [{ number: 1, name: 'Test' }],
      { printId: testPrint.id, title: 'Test', name: 'Name', page: () => '' },
      nodeKit,
    );
    const [canvas] = await pagesOf(sheet);
    if (!canvas) throw new Error('there is a page');
    const verdict = async (gray: Gray) =>
      testVerdict(await readPage(gray, new Map([[testPrint.id, testPrint]]), findCodes));
    const all = { right: 10, asked: 0, wrong: 0 };
    const good = await verdict(scanned(grayOf(canvas), usualFaults, chanceFrom(5)));
    expect(good).toEqual({ straight: true, rows: { empty: all, crossed: all, pale: all, filled: all } });
    const context = canvas.getContext('2d');
    context.fillStyle = '#fff';
    for (const { x, y, w, h } of corners.slice(2))
      context.fillRect((x - 2) * dotsPerMm, (y - 2) * dotsPerMm, (w + 4) * dotsPerMm, (h + 4) * dotsPerMm);
    expect(await verdict(grayOf(canvas))).toEqual({ straight: false, rows: {} });
    expect(await verdict(scan(0, usualFaults, 7).gray)).toBeNull();
  });

  it('stickers hold the codes of their people, 24 on a sheet', async () => {
    const people = Array.from({ length: 26 }, (_, at) => ({
      id: `student${at}`,
      name: `Amara Okafor ${at}`,
    }));
    const sheets = stickerSheets(people, await measureWith(nodeKit));
    const [first, second] = await pagesOf(await drawnPdf(sheets, 'Stickers', nodeKit));
    if (!first || !second || sheets.length !== 2) throw new Error('there are two sheets');
    const cut = createCanvas(first.width, Math.round(first.height / 8));
    cut.getContext('2d').drawImage(first, 0, 0);
    const idsOn = async (canvas: typeof cut) =>
      (await findCodes(grayOf(canvas))).map(({ text }) => stickerFrom(text)).sort();
    expect(await idsOn(cut)).toEqual(['student0', 'student1', 'student2']);
    expect(await idsOn(second)).toEqual(['student24', 'student25']);
  });

  it('the same seed makes the same class and the same scans', () => {
    const [one, two] = [scan(0, usualFaults, 3), scan(0, usualFaults, 3)];
    expect(Buffer.from(one.gray.data).equals(Buffer.from(two.gray.data))).toBe(true);
    expect(one.page).toEqual(two.page);
  });

  it('what is no PDF of ours has no pages', async () => {
    const empty = await PDFDocument.create();
    empty.addPage([200, 200]);
    const [page] = await pagesOf(await empty.save());
    expect(page && (await read(grayOf(page)))).toEqual({ is: 'noCode' });
  });

  it('set straight, lie where they were printed, white where the paper is, and tell where there is ink', async () => {
    const counts = { ink: 0, none: 0 };
    for (const index of drawn.keys()) {
      const { gray, page } = scan(
        index,
        index % 2 ? phoneFaults : { ...usualFaults, shadow: 0.45 },
        300 + index,
      );
      const outcome = await read(gray);
      if (outcome.is !== 'read') continue;
      const straight = straightened(gray, outcome.placed.map);
      expect([straight.width, straight.height]).toEqual([1240, 1754]);
      // Corner marks are dark in their middle, and the paper beside them is white.
      for (const { x, y, w, h } of corners) {
        const at = (mmX: number, mmY: number) =>
          straight.data[Math.round(mmY * keptPerMm) * straight.width + Math.round(mmX * keptPerMm)] ?? 0;
        expect(at(x + w / 2, y + h / 2)).toBeLessThan(90);
        expect(at(x + w / 2, y + h + 3)).toBeGreaterThan(215);
      }
      for (const region of print.pages[index % pages.length] ?? []) {
        if (region.box !== null) continue;
        const written = page.written.includes(region);
        expect(hasInk(straight, region), `${index} ${region.questionId} ${region.part}`).toBe(written);
        counts[written ? 'ink' : 'none']++;
      }
    }
    expect(counts.ink).toBeGreaterThan(10);
  });

  it('whose code nobody can read are read as what somebody says they are, whichever way up', () => {
    const source = drawn[0];
    const regions = print.pages[0] ?? [];
    if (!source) throw new Error('there is a page');
    for (const turn of [0, 1, 2, 3]) {
      const [width, height] = turn % 2 ? [source.height, source.width] : [source.width, source.height];
      const canvas = createCanvas(width, height);
      const context = canvas.getContext('2d');
      context.translate(width / 2, height / 2);
      context.rotate((turn * Math.PI) / 2);
      context.drawImage(source, -source.width / 2, -source.height / 2);
      const found = readPageAs(grayOf(canvas), regions);
      expect(found?.boxes.every(({ state }) => state === 'empty')).toBe(true);
    }
    expect(
      readPageAs({ width: 400, height: 600, data: new Uint8Array(240_000).fill(240) }, regions),
    ).toBeNull();
  });
});
