import type { Question } from '../kinds';
import type { Award } from './scoreAttempt';

/** Whether a question still counts: it was not dropped by a repair. */
export const counts = ({ repaired }: Question): boolean => repaired?.rule?.kind !== 'dropped';

/** The points that are told of an answer: none where its question no longer counts, unless some are kept so that nobody loses. */
export const pointsTold = ({ state, max, points }: Award): number | null =>
  state === 'dropped' && max === 0 && points === 0 ? null : points;
