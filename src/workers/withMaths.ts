import type { Measure } from '@/core/formats/typeset/wrapped';

/** Whether there are formulas in texts or answers, however deep. */
export const hasFormulas = (texts: unknown): boolean =>
  /"(inline|block)Math"|"maths":\[/.test(JSON.stringify(texts));

/** What measures, able to set formulas where there are any in these texts: what sets them is large. */
export async function withMaths(measure: Measure, texts: unknown): Promise<Measure> {
  if (!hasFormulas(texts)) return measure;
  const { mathsSvg } = await import('@/core/formats/typeset/mathsSvg');
  return Object.assign((...of: Parameters<Measure>) => measure(...of), { maths: mathsSvg });
}
