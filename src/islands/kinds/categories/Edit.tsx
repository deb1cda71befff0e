import type { Categories } from '@/core/kinds/categories/schema';
import type { EditProps } from '../KindView';
import { EditPairs } from '../pairs/EditPairs';

export function Edit(props: EditProps<Categories>) {
  return (
    <EditPairs
      {...props}
      target="Category"
      targetsTitle="Categories"
      itemsTitle="Items and their categories"
    />
  );
}
