import { totalShare, type Scorecard } from '@/core/scoring/scoreAttempt';
import { percent } from './format';

/** "53%", or "53% of what is marked" while the rest of a script has no points. */
export function shareWords(card: Scorecard): string {
  const share = totalShare(card);
  if (share === null) return 'nothing marked yet';
  return card.scoredMax < card.max ? `${percent(share)} of what is marked` : percent(share);
}
