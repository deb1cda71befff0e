import { sumBy } from 'remeda';
import { picturesIn } from '../../basics/pictures';
import { plainText } from '../../basics/richWords';
import type { RichText } from '../../basics/richText';
import type { StudentQuestion } from '../../kinds';
import { optionLetter } from '../../kinds/optionLetter';
import type { TickRow, WriteArea } from '../../kinds/paper/PaperKind';
import type { Region } from '../../model/answerPaper';
import type { Drawn, LaidPage } from './drawn';
import type { PaperWords, PartHead } from './layout';
import { body, boxSize } from './sheet';
import { leading, setText, type SetText } from '../../formats/typeset/setText';
import type { Measure } from '../../formats/typeset/wrapped';

/** What answer papers are put together from. */

export const size = 10.5;
export const small = 8.5;
/** Lines to write on are so far apart. */
const lineMm = 8;
/** Beside what is written there is room for marks. */
const writeWidth = body.w - 26;

/** A block that stands on one page: its height, and what it draws where it begins. */
export interface Block {
  h: number;
  at: (y: number) => LaidPage;
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

export function headBlock({ title, instructions, rule }: PaperWords, measure: Measure): Block {
  const lines = { width: body.w, size: small };
  const texts = [
    setText(title, { width: body.w, size: 14, bold: true }, measure),
    ...[instructions, rule].filter((text) => text !== '').map((text) => setText(text, lines, measure)),
  ];
  return stacked([
    textsBlock(texts, body.x, 1),
    ...picturesBlocks(instructions, body.x, body.w, highest.stem),
  ]);
}

/** The heading of a part, with what is said there. */
export function partBlock({ title, instructions }: PartHead, measure: Measure): Block {
  const texts = [
    ...(title ? [setText(title, { width: body.w, size: 12, bold: true }, measure)] : []),
    ...(instructions === '' ? [] : [setText(instructions, { width: body.w, size }, measure)]),
  ];
  return stacked([
    textsBlock(texts, body.x, 1),
    ...picturesBlocks(instructions, body.x, body.w, highest.stem),
  ]);
}

/** Texts one below another, and some room. */
function textsBlock(texts: readonly SetText[], x: number, room: number): Block {
  return {
    h: sumBy(texts, ({ h }) => h) + room,
    at: (y) => {
      let top = y;
      const drawn = texts.flatMap((text) => {
        const from = top;
        top += text.h;
        return text.at(x, from);
      });
      return { drawn, regions: [] };
    },
  };
}

/** No picture is higher on paper than that, in mm. */
const highest = { stem: 90, option: 40, item: 25 };
/** A picture that is not shrunk has so many of its pixels in a mm. */
const pixelsMm = 150 / 25.4;

/** The pictures of a text, one below another, each as large as it is or as there is room. */
function picturesBlocks(text: RichText, x: number, mostW: number, mostH: number): Block[] {
  return picturesIn(text).map(({ asset, width, height }): Block => {
    const scale = Math.min(1 / pixelsMm, mostW / width, mostH / height);
    const [w, h] = [width * scale, height * scale];
    return { h: h + 2, at: (y) => ({ drawn: [{ as: 'picture', x, y: y + 1, w, h, asset }], regions: [] }) };
  });
}

/** What the boxes of a student's number belong to; no question is called so. */
export const numberId = '#number';

/** A line of ten boxes for each figure of a student's number. */
export function numberBlock({ number }: PaperWords, digits: number, measure: Measure): Block {
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

export function stacked(parts: readonly Block[]): Block {
  return {
    h: sumBy(parts, ({ h }) => h),
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

export function stemBlock(
  question: StudentQuestion,
  number: number,
  words: PaperWords,
  measure: Measure,
): Block {
  const text = setText(question.stem, { width: body.w - 34, size }, measure);
  const points = words.points(question.points);
  const stem: Block = {
    h: text.h + 1.5,
    at: (y) => ({
      drawn: [
        ...textAt([String(number)], body.x, y, size, { bold: true }),
        ...text.at(body.x + 8, y),
        ...textAt([points], body.x + body.w - measure(points, small), y, small, { soft: true }),
      ],
      regions: [],
    }),
  };
  return stacked([stem, ...picturesBlocks(question.stem, body.x + 8, body.w - 8, highest.stem)]);
}

export const linesBlock = (lines: readonly string[], of: number): Block => ({
  h: lines.length * leading(of) + 1,
  at: (y) => ({ drawn: textAt(lines, body.x + 8, y, of), regions: [] }),
});

export function rowBlocks(questionId: string, row: TickRow, measure: Measure): Block[] {
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
      const text = setText(box.label, { width: body.w - 20 - letterMm, size }, measure);
      const textX = body.x + 8 + boxSize + 2.2 + letterMm;
      const option: Block = {
        h: Math.max(boxSize + 1.8, text.h + 0.8),
        at: (y) => {
          const square = { x: body.x + 8, y: y + 0.4, w: boxSize, h: boxSize };
          return {
            drawn: [
              { as: 'box', ...square },
              ...textAt([optionLetter(index)], square.x + boxSize + 2.2, y, size, { soft: true }),
              ...text.at(textX, y),
            ],
            regions: [region(questionId, id, box.id, square)],
          };
        },
      };
      return stacked([option, ...picturesBlocks(box.label, textX, body.x + body.w - textX, highest.option)]);
    }),
  ];
}

const stepMm = 11;

/** An item, and boxes side by side with short labels behind them. */
export function lineBlock(
  questionId: string,
  { id, label, boxes }: TickRow,
  measure: Measure,
  /** Where the boxes begin. */
  besideX = 92,
): Block {
  const text = setText(label, { width: besideX - body.x - 12, size }, measure);
  const perLine = Math.floor((body.x + body.w - besideX) / stepMm);
  const rows = Math.ceil(boxes.length / perLine);
  const line: Block = {
    h: Math.max(text.h, rows * (boxSize + 2.2)) + 0.8,
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
          ...text.at(body.x + 8, y),
          ...squares.flatMap(({ box, ...square }): Drawn[] => [
            { as: 'box', ...square },
            ...textAt([plainText(box.label)], square.x + boxSize + 1.2, square.y, small),
          ]),
        ],
        regions: squares.map(({ box, ...square }) => region(questionId, id, box.id, square)),
      };
    },
  };
  return stacked([line, ...picturesBlocks(label, body.x + 8, besideX - body.x - 12, highest.item)]);
}

/** A place to write, with lines or without, and a margin for marks beside it. */
export function areaBlock(questionId: string, { id, label, lines, drawn: empty }: WriteArea): Block {
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
