import type { PaperKind } from '../paper/PaperKind';
import { filledText, gapsInText } from './gapText';
import type { GapsResponse, StudentGaps } from './schema';

/** The text with its gaps numbered; beneath, a line to write on or boxes for each. */
export const gapsPaper: PaperKind<StudentGaps, GapsResponse> = {
  above: ({ text, gaps }) => filledText(text, gaps, ({ number }) => `${number} ……`).split('\n'),
  rows: ({ text, gaps }) =>
    gapsInText(text, gaps).flatMap(({ id, number, options }) =>
      options === null
        ? []
        : [
            {
              ...{ id, label: String(number), as: 'list' as const },
              boxes: options.map((option) => ({ id: option.id, label: option.text })),
            },
          ],
    ),
  areas: ({ text, gaps }) =>
    gapsInText(text, gaps).flatMap(({ id, number, options }) =>
      options === null ? [{ id, label: String(number), lines: 1 }] : [],
    ),
  fromTicks: ({ gaps }, ticks) => {
    if (gaps.some(({ id }) => (ticks[id]?.length ?? 0) > 1)) return null;
    const picked = gaps.flatMap(({ id }) => {
      const [option] = ticks[id] ?? [];
      return option === undefined ? [] : [[id, option] as const];
    });
    return { gaps: Object.fromEntries(picked) };
  },
};
