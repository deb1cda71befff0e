import type { StudentCategories } from '@/core/kinds/categories/schema';
import type { PairsResponse } from '@/core/kinds/pairs';
import type { KindView } from '../KindView';
import { ShowPairs, SitPairs } from '../pairs/SitPairs';

export const categoriesView: KindView<StudentCategories, PairsResponse> = {
  Sit: SitPairs,
  Show: ShowPairs,
};
