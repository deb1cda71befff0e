import type { Reliability } from '@/core/analysis/reliability';
import { lengthFor } from '@/core/analysis/reliability';
import { counted, percent, points } from './format';

/** The reading of a discrimination (Ebel & Frisbie 1991, from memory), as the end of "it tells strong from weak …". */
export function tellsWords(discrimination: number | null): string {
  if (discrimination === null) return 'can’t tell strong from weak yet';
  if (discrimination >= 0.4) return 'tells strong from weak very well';
  if (discrimination >= 0.3) return 'tells strong from weak well';
  if (discrimination >= 0.2) return 'tells strong from weak somewhat';
  return discrimination >= 0 ? 'hardly tells strong from weak' : 'has the weak doing better than the strong';
}

/** "question 7: 42% right, tells strong from weak well" */
export const questionReading = (number: string, facility: number | null, discrimination: number | null) =>
  `question ${number}: ${facility === null ? 'no points yet' : `${percent(facility)} right`}, ${tellsWords(discrimination)}`;

/** How far the total can be trusted, in sentences. @param mean of the totals */
export function trustWords(
  { alpha, interval, standardError, n, isKr20 }: Reliability,
  mean: number,
): string[] {
  const [low, high] = [Math.max(0, mean - standardError), mean + standardError];
  const words = [
    `Reliability ${alpha.toFixed(2)} (${isKr20 ? 'KR-20' : 'alpha'}; between ${interval[0].toFixed(2)} and ${interval[1].toFixed(2)} with 95% confidence), over ${counted(n, 'student')} with points for every question.`,
    `A total is good to about ± ${points(standardError)} points: students between ${points(low)} and ${points(high)} can’t be told apart.`,
  ];
  const times = alpha < 0.8 ? lengthFor(0.8, alpha) : null;
  if (times !== null && times > 1)
    words.push(
      `For a reliability of 0.8 it would have to be ${points(times)} times as long, with questions like these.`,
    );
  return words;
}

/** "1 min 20 s", "45 s" */
export function seconds(value: number): string {
  const whole = Math.round(value);
  return whole < 60 ? `${whole} s` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
}

/** "+0.41", "−0.12", "–" where there is none. */
export const signed = (value: number | null): string =>
  value === null ? '–' : `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`;
