import type { Matching, StudentMatching } from '@/core/kinds/matching/schema';
import type { PairsResponse } from '@/core/kinds/pairs';
import { PrintedPairs } from '../printed';
import type { KindView } from '../KindView';
import { EditPairs } from '../pairs/EditPairs';
import { ShowPairs, SitPairs } from '../pairs/SitPairs';

export const matchingView: KindView<Matching, StudentMatching, PairsResponse> = {
  Edit: (props) => (
    <EditPairs
      {...props}
      target="Partner"
      targetsTitle="Partners: what can be chosen, in an order of each student's own; more of them than items make it harder"
      itemsTitle="Items, and the partner of each"
    />
  ),
  Sit: SitPairs,
  Show: ShowPairs,
  Printed: PrintedPairs,
};
