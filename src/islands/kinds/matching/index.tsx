import type { StudentMatching } from '@/core/kinds/matching/schema';
import type { PairsResponse } from '@/core/kinds/pairs';
import type { KindView } from '../KindView';
import { ShowPairs, SitPairs } from '../pairs/SitPairs';

export const matchingView: KindView<StudentMatching, PairsResponse> = {
  Sit: SitPairs,
  Show: ShowPairs,
};
