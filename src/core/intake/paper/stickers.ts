import type { Drawn } from './drawn';
import { pageSize, stickerText } from './sheet';
import { wrapped, type Measure } from '../../formats/typeset/wrapped';

/** Stickers with students' codes: whose a paper is that was printed elsewhere. */

/** Three across and eight down fill an A4 sheet of labels. Common practice, no source. */
const label = { w: 70, h: 37, across: 3, down: 8 };
const codeMm = 20;
const insetMm = 6;

/** Whom a sticker is for. */
export interface StickerOf {
  id: string;
  name: string;
}

/** Sheets of stickers: a code and the name beside it, in the order of the people. */
export function stickerSheets(people: readonly StickerOf[], measure: Measure): Drawn[][] {
  const each = label.across * label.down;
  const top = (pageSize.h - label.h * label.down) / 2;
  return Array.from({ length: Math.ceil(people.length / each) }, (_, sheet) =>
    people
      .slice(sheet * each, (sheet + 1) * each)
      .flatMap((person, at) =>
        sticker(
          person,
          (at % label.across) * label.w + insetMm,
          top + Math.floor(at / label.across) * label.h + (label.h - codeMm) / 2,
          measure,
        ),
      ),
  );
}

function sticker({ id, name }: StickerOf, x: number, y: number, measure: Measure): Drawn[] {
  const size = 10;
  const textX = x + codeMm + 3;
  const lines = wrapped(name, label.w - insetMm - (textX - x) - 2, size, measure).slice(0, 4);
  return [
    { as: 'code', x, y, w: codeMm, h: codeMm, text: stickerText(id) },
    ...lines.map((text, line): Drawn => ({ as: 'text', x: textX, y: y + 5 + line * 4.7, size, text })),
  ];
}
