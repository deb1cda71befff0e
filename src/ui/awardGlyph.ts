import type { Award } from '@/core/scoring/scoreAttempt';
import type { GlyphState } from './FillGlyph';

/** An award as the glyph draws it. */
export function awardGlyph(award: Award): GlyphState {
  return {
    share: award.points === null ? null : award.max === 0 ? 0 : Math.min(1, award.points / award.max),
    answered: award.answered,
    notRead: award.state === 'notRead',
    waiting: award.state === 'waiting',
    overridden: award.state === 'overridden',
    near: award.nearMiss !== null,
  };
}
