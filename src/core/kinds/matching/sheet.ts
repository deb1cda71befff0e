import { pairSheet } from '../pairSheet';
import type { Matching } from './schema';

/** Each item has a target of its own. */
export const matchingSheet = pairSheet<Matching>(
  10,
  (targets) => targets.length > 1 && new Set(targets).size === targets.length,
);
