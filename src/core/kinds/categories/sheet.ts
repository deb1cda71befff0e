import { pairSheet } from '../pairSheet';
import type { Categories } from './schema';

/** Several items share a target. */
export const categoriesSheet = pairSheet<Categories>(20, (targets) => new Set(targets).size < targets.length);
