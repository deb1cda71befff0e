import { plainText } from '../../basics/richWords';
import type { Gap, StudentGap } from './schema';

/** A run of text, or a gap in it. */
export type Segment<G> = { text: string } | { gap: G };

/** A text cut at its gaps. A number in brackets that no gap has stays text. */
export function segmentsOf<G extends { number: number }>(text: string, gaps: readonly G[]): Segment<G>[] {
  const segments: Segment<G>[] = [];
  const used = new Set<number>();
  let from = 0;
  for (const found of text.matchAll(/\[(\d{1,3})\]/g)) {
    const gap = gaps.find((each) => each.number === Number(found[1]));
    // Each gap is one place; its number again is text.
    if (!gap || used.has(gap.number)) continue;
    used.add(gap.number);
    if (found.index > from) segments.push({ text: text.slice(from, found.index) });
    segments.push({ gap });
    from = found.index + found[0].length;
  }
  if (from < text.length) segments.push({ text: text.slice(from) });
  return segments;
}

/** The gaps that are in the text, in its order. */
export function gapsInText<G extends { number: number }>(text: string, gaps: readonly G[]): G[] {
  return segmentsOf(text, gaps).flatMap((segment) => ('gap' in segment ? [segment.gap] : []));
}

/** The text with something in each gap. */
export function filledText<G extends { number: number }>(
  text: string,
  gaps: readonly G[],
  filling: (gap: G) => string,
): string {
  return segmentsOf(text, gaps)
    .map((segment) => ('gap' in segment ? `[${filling(segment.gap)}]` : segment.text))
    .join('');
}

/** What fills a gap, in words: the option that was picked, or what was typed. */
export function fillingText(gap: Gap | StudentGap, filling: string): string {
  return plainText(gap.options?.find((option) => option.id === filling)?.text ?? filling);
}
