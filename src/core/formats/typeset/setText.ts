import { sumBy } from 'remeda';
import { printedText } from '../../basics/pictures';
import type { RichNode, RichText } from '../../basics/richText';
import type { SetMaths } from './mathsSvg';
import { wrapped, type Measure } from './wrapped';

/** Texts set in lines, with their formulas in place. */

const pointMm = 25.4 / 72;
/** From line to line, in mm. @param of in points */
export const leading = (of: number) => of * pointMm * 1.32;
/** So much of a line is over what letters stand on. */
const over = 0.78;

/** What a set text draws: letters that stand on a line, or a formula, from its upper left corner; mm. */
export type SetPiece =
  | { as: 'text'; x: number; y: number; size: number; text: string; bold?: true; soft?: true }
  | {
      as: 'maths';
      x: number;
      y: number;
      w: number;
      h: number;
      /** The line it stands on, and how large an em is. */
      base: number;
      em: number;
      /** A picture of its own, and what is in it: see `SetMaths`. */
      svg: string;
      inside: string;
    };

/** A text that was set: its height, and what it draws where it begins; mm. */
export interface SetText {
  h: number;
  at: (x: number, y: number) => SetPiece[];
}

/** How a text looks. */
export interface TextStyle {
  /** In mm. */
  width: number;
  /** In points. */
  size: number;
  bold?: true;
  soft?: true;
}

/** A text in lines of a width; formulas are set where whoever measures can set them, and stand as typed otherwise. */
export function setText(text: RichText, { width, size, ...looks }: TextStyle, measure: Measure): SetText {
  const { words, formulas } = withPlaces(text, measure);
  const em = size * pointMm;
  const widthOf: Measure = (part, of, bold) =>
    sumBy(pieces(part, formulas), (piece) =>
      typeof piece === 'string' ? measure(piece, of, bold) : piece.w * em,
    );
  const lines = wrapped(words, width, size, widthOf, looks.bold).map((line) => lineOf(line, formulas, size));
  return {
    h: sumBy(lines, ({ above, below }) => above + below),
    at: (x, y) => {
      let top = y;
      return lines.flatMap(({ parts, above, below }) => {
        const base = top + above;
        let left = x;
        top += above + below;
        return parts.map((part): SetPiece => {
          const from = left;
          if (typeof part === 'string') {
            left += measure(part, size, looks.bold);
            return { as: 'text', x: from, y: base, size, text: part, ...looks };
          }
          left += part.w * em;
          const { svg, inside } = part;
          const at = {
            x: from,
            y: base - part.above * em,
            w: part.w * em,
            h: (part.above + part.below) * em,
          };
          return { as: 'maths', ...at, base, em, svg, inside };
        });
      });
    },
  };
}

interface Line {
  parts: (string | SetMaths)[];
  /** Over and under what letters stand on, in mm. */
  above: number;
  below: number;
}

/** Formulas that are higher than a line keep so far from the next ones, in mm. */
const airMm = 0.6;

function lineOf(line: string, formulas: readonly SetMaths[], size: number): Line {
  const parts = pieces(line, formulas);
  const em = size * pointMm;
  const set = parts.flatMap((part) => (typeof part === 'string' ? [] : [part]));
  return {
    parts,
    above: Math.max(leading(size) * over, ...set.map(({ above }) => above * em + airMm)),
    below: Math.max(leading(size) * (1 - over), ...set.map(({ below }) => below * em + airMm)),
  };
}

/** Formulas have letters of their own in a text while it is set: of the private use area (Unicode, 23.5). */
const firstPlace = 0xe000;
const places = /([\uE000-\uF8FF])/;

function pieces(text: string, formulas: readonly SetMaths[]): (string | SetMaths)[] {
  if (formulas.length === 0) return [text];
  const parts = text
    .split(places)
    .flatMap((part): (string | SetMaths)[] =>
      part === '' ? [] : [formulas[part.charCodeAt(0) - firstPlace] ?? part],
    );
  return parts.length === 0 ? [''] : parts;
}

function withPlaces(text: RichText, { maths }: Measure): { words: string; formulas: SetMaths[] } {
  const formulas: SetMaths[] = [];
  if (typeof text === 'string' || !maths) return { words: printedText(text), formulas };
  const walk = (node: RichNode): RichNode => {
    if (node.type !== 'inlineMath' && node.type !== 'blockMath')
      return node.content ? { ...node, content: node.content.map(walk) } : node;
    const set = maths(node.attrs?.latex ?? '', node.type === 'blockMath');
    if (!set) return node;
    formulas.push(set);
    const place = { type: 'text' as const, text: String.fromCharCode(firstPlace + formulas.length - 1) };
    return node.type === 'blockMath' ? { type: 'paragraph', content: [place] } : place;
  };
  return { words: printedText({ ...text, content: text.content.map(walk) }), formulas };
}

/** Whether there is a formula in a text. */
export const hasMaths = (text: RichText): boolean =>
  typeof text !== 'string' && text.content.some(isOrHasMaths);

const isOrHasMaths = ({ type, content = [] }: RichNode): boolean =>
  type === 'inlineMath' || type === 'blockMath' || content.some(isOrHasMaths);
