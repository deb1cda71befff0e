import type { SetMathsOf } from './mathsSvg';

/** How wide a text is, in mm. @param size in points */
export interface Measure {
  (text: string, size: number, bold?: boolean): number;
  /** Sets formulas; absent: they stand as they were typed. */
  maths?: SetMathsOf;
}

/** Lines of a text that fit a width; a word wider than that is cut. */
export function wrapped(text: string, width: number, of: number, measure: Measure, bold = false): string[] {
  const lines: string[] = [];
  for (const paragraph of text.split('\n')) {
    let line = '';
    for (let word of paragraph.split(/\s+/)) {
      if (line && measure(`${line} ${word}`, of, bold) <= width) {
        line = `${line} ${word}`;
        continue;
      }
      if (line) lines.push(line);
      while (measure(word, of, bold) > width && word.length > 1) {
        let fits = word.length - 1;
        while (fits > 1 && measure(word.slice(0, fits), of, bold) > width) fits--;
        lines.push(word.slice(0, fits));
        word = word.slice(fits);
      }
      line = word;
    }
    lines.push(line);
  }
  return lines;
}
