import type { Matching } from '@/core/kinds/matching/schema';
import type { EditProps } from '../KindView';
import { EditPairs } from '../pairs/EditPairs';

export function Edit(props: EditProps<Matching>) {
  return (
    <EditPairs
      {...props}
      target="Partner"
      targetsTitle="Partners: what can be chosen, in an order of each student's own; more of them than items make it harder"
      itemsTitle="Items and their partners"
    />
  );
}
