import type { Seat } from '../seats/seats';

/** What a script says, as far as marking and repairs change it: two that say the same are equal. */
export function scriptSays({
  scorecard,
  marks,
  release,
}: Pick<Seat, 'scorecard' | 'marks' | 'release'>): string {
  const points = scorecard?.awards.map((award) => `${award.points ?? '-'}/${award.max}`).join(' ') ?? '';
  const comments = marks
    .map(({ questionId, comment, work }) => JSON.stringify([questionId, comment, work ?? []]))
    .sort()
    .join(' ');
  return JSON.stringify([scorecard?.total ?? null, points, comments, release?.shows ?? null]);
}
