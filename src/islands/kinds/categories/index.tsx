import type { Categories, StudentCategories } from '@/core/kinds/categories/schema';
import type { PairsResponse } from '@/core/kinds/pairs';
import { PrintedPairs } from '../printed';
import type { KindView } from '../KindView';
import { EditPairs } from '../pairs/EditPairs';
import { ShowPairs, SitPairs } from '../pairs/SitPairs';

export const categoriesView: KindView<Categories, StudentCategories, PairsResponse> = {
  Edit: (props) => (
    <EditPairs
      {...props}
      target="Category"
      targetsTitle="Categories"
      itemsTitle="Items, and where each belongs"
    />
  ),
  Sit: SitPairs,
  Show: ShowPairs,
  Printed: PrintedPairs,
};
