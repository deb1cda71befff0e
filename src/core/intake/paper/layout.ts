import { plainText } from '../../basics/richWords';
import type { RichText } from '../../basics/richText';
import type { StudentQuestion } from '../../kinds';
import { optionLetter } from '../../kinds/optionLetter';
import { paperOf } from '../../kinds/papers';
import type { AnswerPaper } from '../../model/answerPaper';
import type { LaidPage } from './drawn';
import {
  areaBlock,
  headBlock,
  lineBlock,
  linesBlock,
  numberBlock,
  partBlock,
  rowBlocks,
  size,
  small,
  stacked,
  stemBlock,
  type Block,
} from './blocks';
import { body } from './sheet';
import { wrapped, type Measure } from '../../formats/typeset/wrapped';

/** What stands at the head of the paper and over its boxes. */
export interface PaperWords {
  title: string;
  instructions: RichText;
  /** How boxes are filled, and a tick taken back. */
  rule: string;
  /** Over the boxes of a student's number. */
  number: string;
  points: (points: number) => string;
  /** What stands before the first question of a part, by that question's id. */
  parts?: ReadonlyMap<string, PartHead>;
}

/** The heading of a part. */
export interface PartHead {
  title: string;
  instructions: RichText;
  newPage: boolean;
}

/** So much of a page is left where a part begins. */
const headingMm = 60;

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
    const part = words.parts?.get(question.id);
    if (part?.newPage && index > 0) y = Infinity;
    // A heading does not stand alone at the foot of a page.
    if (part && y + headingMm > body.bottom) y = Infinity;
    if (part && form !== 'sheet') add(partBlock(part, measure));
    const blocks =
      form === 'sheet'
        ? sheetBlocks(question, index + 1, measure)
        : questionBlocks(question, index + 1, words, measure);
    for (const block of blocks) add(block);
  });
  return pages;
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
