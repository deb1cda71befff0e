import type { StudentQuestion } from '../../kinds';
import { paperOf } from '../../kinds/papers';
import type { TickRow, WriteArea } from '../../kinds/paper/PaperKind';
import { optionLetter } from '../../kinds/optionLetter';
import { plainText } from '../../basics/richWords';
import type { AnswerPaper, Region } from '../../model/answerPaper';
import { body, boxSize } from './sheet';
import { wrapped, type Measure } from './wrapped';

/** One thing that is drawn on a page; mm, from the upper left corner. Text stands on its line. */
export type Drawn =
  | { as: 'text'; x: number; y: number; size: number; text: string; bold?: true; soft?: true }
  | { as: 'box'; x: number; y: number; w: number; h: number }
  | { as: 'area'; x: number; y: number; w: number; h: number }
  | { as: 'line'; x: number; y: number; w: number };

/** One page as it is printed, but for whose it is. */
export interface LaidPage {
  drawn: Drawn[];
  regions: Region[];
}

/** What stands at the head of the paper and over its boxes. */
export interface PaperWords {
  title: string;
  instructions: string;
  /** How boxes are filled, and a tick taken back. */
  rule: string;
  /** Over the boxes of a student's number. */
  number: string;
  points: (points: number) => string;
}

const pointMm = 25.4 / 72;
const size = 10.5;
const small = 8.5;
const leading = (of: number) => of * pointMm * 1.32;
/** Lines to write on are so far apart. */
const lineMm = 8;
/** Beside what is written there is room for marks. */
const writeWidth = body.w - 26;

/** A block that stands on one page: its height, and what it draws where it begins. */
interface Block {
  h: number;
  at: (y: number) => LaidPage;
}

/**
 * A paper laid out on pages, with the region of every box and every place to write. A question stays on one page.
 *
 * @param questions as students get them: nothing of the key is here
 */
export function laidOut(
  questions: readonly StudentQuestion[],
  words: PaperWords,
  measure: Measure,
  { form, digits = 0 }: Pick<AnswerPaper, 'form' | 'digits'> = {},
): LaidPage[] {
  const pages: LaidPage[] = [];
  let y = Infinity;
  const add = (block: Block) => {
    if (y + block.h > body.bottom) {
      pages.push({ drawn: [], regions: [] });
      ({ y } = body);
    }
    const { drawn, regions } = block.at(y);
    pages.at(-1)?.drawn.push(...drawn);
    pages.at(-1)?.regions.push(...regions);
    y += block.h + 4;
  };
  add(headBlock(words, measure));
  if (digits > 0) add(numberBlock(words, digits, measure));
  questions.forEach((question, index) => {
    const blocks =
      form === 'sheet'
        ? sheetBlocks(question, index + 1, measure)
        : questionBlocks(question, index + 1, words, measure);
    for (const block of blocks) add(block);
  });
  return pages;
}

const textAt = (lines: readonly string[], x: number, y: number, of: number, more: object = {}): Drawn[] =>
  lines.map((text, index) => ({
    as: 'text',
    x,
    y: y + leading(of) * (index + 0.78),
    size: of,
    text,
    ...more,
  }));

function headBlock({ title, instructions, rule }: PaperWords, measure: Measure): Block {
  const titles = wrapped(title, body.w, 14, measure, true);
  const said = [instructions, rule].filter(Boolean).flatMap((text) => wrapped(text, body.w, small, measure));
  const h = titles.length * leading(14) + said.length * leading(small) + 1;
  return {
    h,
    at: (y) => ({
      drawn: [
        ...textAt(titles, body.x, y, 14, { bold: true }),
        ...textAt(said, body.x, y + titles.length * leading(14) + 1, small),
      ],
      regions: [],
    }),
  };
}

/** What the boxes of a student's number belong to; no question is called so. */
export const numberId = '#number';

/** A line of ten boxes for each figure of a student's number. */
function numberBlock({ number }: PaperWords, digits: number, measure: Measure): Block {
  const figures = Array.from({ length: 10 }, (_, figure) => ({ id: String(figure), label: String(figure) }));
  return stacked([
    linesBlock([number], small),
    ...Array.from({ length: digits }, (_, at) =>
      lineBlock(
        numberId,
        { id: String(at + 1), label: `${at + 1}.`, boxes: figures, as: 'line' },
        measure,
        34,
      ),
    ),
  ]);
}

/** A question on an answer sheet: its number, its boxes by their letters, its areas. */
function sheetBlocks(question: StudentQuestion, number: number, measure: Measure): Block[] {
  const form = paperOf(question);
  const rows = form.rows(question);
  const said = (label: string) => [number, wrapped(label, 44, size, measure)[0]].filter(Boolean).join('  ');
  return [
    ...rows.map((row) =>
      lineBlock(
        question.id,
        {
          ...row,
          label: said(rows.length > 1 ? plainText(row.label) : ''),
          boxes: row.boxes.map((box, at) => ({
            ...box,
            label: row.as === 'list' ? optionLetter(at) : box.label,
          })),
        },
        measure,
        64,
      ),
    ),
    ...form
      .areas(question)
      .map((area) =>
        areaBlock(question.id, { ...area, label: [number, area.label].filter(Boolean).join(' ') }),
      ),
  ];
}

/** A question as a block; one too long for a page as several, each with what belongs together. */
function questionBlocks(
  question: StudentQuestion,
  number: number,
  words: PaperWords,
  measure: Measure,
): Block[] {
  const form = paperOf(question);
  const head = stemBlock(question, number, words, measure);
  const above = (form.above?.(question) ?? []).flatMap((text) =>
    wrapped(text, body.w - 8, small + 1, measure),
  );
  const parts: Block[] = [
    head,
    ...(above.length > 0 ? [linesBlock(above, small + 1)] : []),
    ...form.rows(question).flatMap((row) => rowBlocks(question.id, row, measure)),
    ...form.areas(question).map((area) => areaBlock(question.id, area)),
  ];
  const whole = stacked(parts);
  return whole.h <= body.bottom - body.y ? [whole] : [stacked(parts.slice(0, 2)), ...parts.slice(2)];
}

function stacked(parts: readonly Block[]): Block {
  return {
    h: parts.reduce((sum, { h }) => sum + h, 0),
    at: (y) => {
      let from = y;
      const page: LaidPage = { drawn: [], regions: [] };
      for (const part of parts) {
        const { drawn, regions } = part.at(from);
        page.drawn.push(...drawn);
        page.regions.push(...regions);
        from += part.h;
      }
      return page;
    },
  };
}

function stemBlock(question: StudentQuestion, number: number, words: PaperWords, measure: Measure): Block {
  const lines = wrapped(plainText(question.stem), body.w - 34, size, measure);
  const points = words.points(question.points);
  return {
    h: lines.length * leading(size) + 1.5,
    at: (y) => ({
      drawn: [
        ...textAt([String(number)], body.x, y, size, { bold: true }),
        ...textAt(lines, body.x + 8, y, size),
        ...textAt([points], body.x + body.w - measure(points, small), y, small, { soft: true }),
      ],
      regions: [],
    }),
  };
}

const linesBlock = (lines: readonly string[], of: number): Block => ({
  h: lines.length * leading(of) + 1,
  at: (y) => ({ drawn: textAt(lines, body.x + 8, y, of), regions: [] }),
});

function rowBlocks(questionId: string, row: TickRow, measure: Measure): Block[] {
  return row.as === 'list' ? listBlocks(questionId, row, measure) : [lineBlock(questionId, row, measure)];
}

const region = (
  questionId: string,
  part: string,
  box: string | null,
  of: { x: number; y: number; w: number; h: number },
): Region => ({
  ...of,
  questionId,
  part,
  box,
});

/** The letter of an option has so much room. */
const letterMm = 5.5;

/** Each option with its box before it. */
function listBlocks(questionId: string, { id, label, boxes }: TickRow, measure: Measure): Block[] {
  const named = plainText(label);
  return [
    ...(named ? [linesBlock([named], size)] : []),
    ...boxes.map((box, index): Block => {
      const lines = wrapped(plainText(box.label), body.w - 20 - letterMm, size, measure);
      return {
        h: Math.max(boxSize + 1.8, lines.length * leading(size) + 0.8),
        at: (y) => {
          const square = { x: body.x + 8, y: y + 0.4, w: boxSize, h: boxSize };
          return {
            drawn: [
              { as: 'box', ...square },
              ...textAt([optionLetter(index)], square.x + boxSize + 2.2, y, size, { soft: true }),
              ...textAt(lines, square.x + boxSize + 2.2 + letterMm, y, size),
            ],
            regions: [region(questionId, id, box.id, square)],
          };
        },
      };
    }),
  ];
}

const stepMm = 11;

/** An item, and boxes side by side with short labels behind them. */
function lineBlock(
  questionId: string,
  { id, label, boxes }: TickRow,
  measure: Measure,
  /** Where the boxes begin. */
  besideX = 92,
): Block {
  const lines = wrapped(plainText(label), besideX - body.x - 12, size, measure);
  const perLine = Math.floor((body.x + body.w - besideX) / stepMm);
  const rows = Math.ceil(boxes.length / perLine);
  return {
    h: Math.max(lines.length * leading(size), rows * (boxSize + 2.2)) + 0.8,
    at: (y) => {
      const squares = boxes.map((box, index) => ({
        box,
        x: besideX + (index % perLine) * stepMm,
        y: y + 0.4 + Math.floor(index / perLine) * (boxSize + 2.2),
        w: boxSize,
        h: boxSize,
      }));
      return {
        drawn: [
          ...textAt(lines, body.x + 8, y, size),
          ...squares.flatMap(({ box, ...square }): Drawn[] => [
            { as: 'box', ...square },
            ...textAt([plainText(box.label)], square.x + boxSize + 1.2, square.y, small),
          ]),
        ],
        regions: squares.map(({ box, ...square }) => region(questionId, id, box.id, square)),
      };
    },
  };
}

/** A place to write, with lines or without, and a margin for marks beside it. */
function areaBlock(questionId: string, { id, label, lines, drawn: empty }: WriteArea): Block {
  const most = Math.floor((body.bottom - body.y - 30) / lineMm);
  const rows = Math.min(lines, most);
  const h = rows * lineMm + 2;
  const x = body.x + 8 + (label ? 7 : 0);
  return {
    h: h + 2.5,
    at: (y) => {
      const rect = { x, y: y + 0.5, w: writeWidth - (label ? 7 : 0), h };
      return {
        drawn: [
          ...(label ? textAt([label], body.x + 8, y + 2, size) : []),
          { as: 'area', ...rect },
          ...(empty
            ? []
            : Array.from({ length: rows - 1 }, (_, index): Drawn => ({
                as: 'line',
                x: rect.x + 1.5,
                y: rect.y + lineMm * (index + 1),
                w: rect.w - 3,
              }))),
        ],
        regions: [region(questionId, id, null, rect)],
      };
    },
  };
}
