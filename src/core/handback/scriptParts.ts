import { z } from 'zod';
import { sumBy } from 'remeda';
import { Line, Points, Text } from '../basics/common';
import { hundredths } from '../basics/points';
import type { Question } from '../kinds';
import type { HandMark } from '../model/mark';
import { counts } from '../scoring/counts';
import type { Award, Scorecard } from '../scoring/scoreAttempt';
import { mean } from '../analysis/mean';
import { standardDeviation } from '../analysis/standardDeviation';
import { topicsOf } from '../analysis/subgroups';
import { wholeScheme } from '../marking/scheme';

/** A line of the scheme as the student sees it. */
export const ScriptLine = z.object({
  text: Text,
  points: z.number(),
  /** The group it is in. */
  group: Line.optional(),
  /** Absent where that is not let out. */
  met: z.boolean().optional(),
});
export type ScriptLine = z.infer<typeof ScriptLine>;

/** Points by topic. */
export const ScriptTopic = z.object({ name: Line, points: Points, max: Points });

/** How the class did, by those whose results are whole. Points. */
export const ClassFigures = z.object({
  n: z.number().int(),
  mean: z.number(),
  /** Standard deviation of a sample; null below two. */
  deviation: z.number().nullable(),
});
export type ClassFigures = z.infer<typeof ClassFigures>;

/** Fewer whole results than that give no figures: they would tell of single students. Common practice, no source. */
export const leastOfClass = 5;

/** Mean and standard deviation of whole totals; null below `leastOfClass`. */
export function classFigures(totals: readonly number[]): ClassFigures | null {
  const n = totals.length;
  return n < leastOfClass ? null : { n, mean: mean(totals), deviation: standardDeviation(totals) };
}

/** The place of a total: one more than there are better ones; null where too few are whole, or this is not among them. */
export const placeOf = (totals: readonly number[], total: number): number | null =>
  totals.length < leastOfClass ? null : 1 + totals.filter((each) => each > total).length;

/** What a script has by topic: of the questions that count and have points. */
export function topicPoints(
  questions: readonly Question[],
  awards: readonly Award[],
): z.infer<typeof ScriptTopic>[] {
  const awardOf = new Map(awards.map((award) => [award.questionId, award]));
  return topicsOf(questions).flatMap(({ name, ids }) => {
    const own = ids.flatMap((id) => awardOf.get(id) ?? []).filter(({ points }) => points !== null);
    const sum = (of: (award: Award) => number) => sumBy(own, (award) => hundredths(of(award))) / 100;
    const max = sum((award) => award.max);
    return max > 0 ? [{ name, points: sum(({ points }) => points ?? 0), max }] : [];
  });
}

/** The lines of a question's scheme with whether they were met; none where it has no scheme, or nobody has marked it. */
export function schemeLines(question: Question, mark: HandMark | undefined): ScriptLine[] {
  if (mark?.points == null || !counts(question)) return [];
  const { lines, groups } = wholeScheme(question);
  const nameOf = new Map(groups.map(({ id, text }) => [id, text]));
  return lines.map(({ id, text, points, groupId }) => {
    const group = nameOf.get(groupId ?? '');
    return { text, points, ...(group !== undefined && { group }), met: mark.lines.includes(id) };
  });
}

/** A scorecard as if these questions had no points yet: what is not marked for all is not seen. */
export function withoutUnfinished(card: Scorecard, unfinished: readonly string[]): Scorecard {
  const hidden = new Set(unfinished);
  if (!card.awards.some(({ questionId }) => hidden.has(questionId))) return card;
  const awards = card.awards.map((award): Award =>
    hidden.has(award.questionId) ? { ...award, points: null, state: 'waiting' } : award,
  );
  const seen = awards.filter(({ points }) => points !== null);
  const sum = (of: (award: Award) => number) => sumBy(seen, (award) => hundredths(of(award))) / 100;
  return {
    ...card,
    awards,
    total: sum(({ points }) => points ?? 0),
    scoredMax: sum(({ max }) => max),
    waiting: awards.filter(({ state }) => state === 'waiting').length,
    notRead: awards.filter(({ state }) => state === 'notRead').length,
    final: false,
  };
}
