import type { SetPiece, SetText } from './setText';

const pointMm = 25.4 / 72;

/** A set text as a picture, in mm. @param colour of all of it */
export function svgOf({ h, at }: SetText, width: number, colour = '#000000'): string {
  const inside = at(0, 0)
    .map((piece) => pieceSvg(piece))
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${h}"><g fill="${colour}" color="${colour}">${inside}</g></svg>`;
}

function pieceSvg(piece: SetPiece): string {
  if (piece.as === 'text') {
    const weight = piece.bold ? ' font-weight="bold"' : '';
    // Drawers drop spaces at the ends of a text; those that do not break they keep.
    const text = piece.text.replace(/^ +| +$/g, (spaces) => '\u00a0'.repeat(spaces.length));
    return `<text x="${piece.x}" y="${piece.y}" font-size="${piece.size * pointMm}"${weight}>${escaped(text)}</text>`;
  }
  // It is drawn in thousandths of an em, from the line it stands on.
  return `<g transform="translate(${piece.x},${piece.base}) scale(${piece.em / 1000})">${piece.inside}</g>`;
}

const signs: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string) => text.replace(/[&<>"]/g, (sign) => signs[sign] ?? '');
