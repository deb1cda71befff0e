import type { SpreadBar } from '@/core/analysis/spread';
import type { QuestionRow } from '@/desk/useAnalysis';
import { apart } from '@/ui/apart';

/** Pictures of the report: plain SVG in black, for paper. */

const width = 500;
const text = (x: number, y: number, words: string, anchor = 'middle', size = 9) =>
  `<text x="${x}" y="${y}" text-anchor="${anchor}" font-family="Roboto" font-size="${size}">${escaped(words)}</text>`;

const escaped = (words: string) =>
  words.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('"', '&quot;');

const svg = (height: number, inside: string[]) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${inside.join('')}</svg>`;

/** How many results in each tenth, with the mean. */
export function spreadSvg(bars: readonly SpreadBar[], meanShare: number): string {
  const most = Math.max(1, ...bars.map(({ count }) => count));
  const [left, bottom, high] = [10, 100, 78];
  const step = (width - 2 * left) / bars.length;
  const x = (share: number) => left + share * (width - 2 * left);
  return svg(120, [
    `<line x1="${left}" y1="${bottom}" x2="${width - left}" y2="${bottom}" stroke="black" stroke-width="1"/>`,
    ...bars.map(({ from, count }) => {
      const height = (count / most) * high;
      return `<rect x="${x(from) + 2}" y="${bottom - height}" width="${step - 4}" height="${height}" fill="#8a8a8a"/>`;
    }),
    ...bars.map(({ from }) => text(x(from), bottom + 12, `${Math.round(from * 100)}%`)),
    `<line x1="${x(meanShare)}" y1="8" x2="${x(meanShare)}" y2="${bottom}" stroke="black" stroke-dasharray="4 3"/>`,
    text(x(meanShare), 7, `mean ${Math.round(meanShare * 100)}%`),
    // Over the line of the mean, each on white.
    ...bars
      .filter(({ count }) => count > 0)
      .map(({ from, count }) => {
        const [cx, y] = [x(from) + step / 2, bottom - (count / most) * high - 3];
        return `<rect x="${cx - 7}" y="${y - 8}" width="14" height="9" fill="white"/>${text(cx, y, String(count))}`;
      }),
  ]);
}

/** Every question by facility and discrimination, with its number; what looks wrong is a black diamond. */
export function mapSvg(rows: readonly QuestionRow[]): string {
  const placed = rows.flatMap(({ facility, discrimination, number, suspect }) =>
    facility === null || discrimination === null ? [] : [{ facility, discrimination, number, suspect }],
  );
  const [left, right, top, bottom] = [34, width - 12, 8, 190];
  const low = Math.min(-0.1, ...placed.map(({ discrimination }) => discrimination));
  const high = Math.max(0.7, ...placed.map(({ discrimination }) => discrimination));
  const x = (share: number) => left + share * (right - left);
  const y = (value: number) => bottom - ((value - low) / (high - low)) * (bottom - top);
  const moves = apart(
    placed.map(({ facility, discrimination }) => [x(facility), y(discrimination)]),
    17,
  );
  const across = [0, 0.2, 0.4, 0.6, 0.8, 1];
  const up = [0, 0.2, 0.4, 0.6].filter((value) => value >= low && value <= high);
  return svg(214, [
    ...across.map(
      (share) =>
        `<line x1="${x(share)}" y1="${top}" x2="${x(share)}" y2="${bottom}" stroke="#cccccc"/>${text(x(share), bottom + 12, `${Math.round(share * 100)}%`)}`,
    ),
    ...up.map(
      (value) =>
        `<line x1="${left}" y1="${y(value)}" x2="${right}" y2="${y(value)}" stroke="#cccccc"/>${text(left - 4, y(value) + 3, value.toFixed(1), 'end')}`,
    ),
    ...placed.map(({ facility, discrimination, number, suspect }, index) => {
      const [dx, dy] = moves[index] ?? [0, 0];
      const [cx, cy] = [x(facility) + dx, y(discrimination) + dy];
      const label = `<text x="${cx}" y="${cy + 3}" text-anchor="middle" font-family="Roboto" font-size="8" fill="${suspect ? 'white' : 'black'}">${escaped(number)}</text>`;
      return suspect
        ? `<polygon points="${cx},${cy - 12} ${cx + 12},${cy} ${cx},${cy + 12} ${cx - 12},${cy}" fill="black"/>${label}`
        : `<circle cx="${cx}" cy="${cy}" r="8" fill="white" stroke="black"/>${label}`;
    }),
  ]);
}
