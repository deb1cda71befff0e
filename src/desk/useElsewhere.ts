import { useLiveQuery } from 'dexie-react-hooks';
import { deskElsewhere, type DeskElsewhere } from '@/store/elsewhere';
import { notCopiedSince, serverPlace } from '@/sync/copyPlaces';

/** A desk that is on another computer. */
export interface Elsewhere extends DeskElsewhere {
  /** Something was changed here that never got there. */
  unsent: boolean;
}

/** Where the desk is, while it is not here; null: it is here; undefined while that is looked up. */
export const useElsewhere = (): Elsewhere | null | undefined =>
  useLiveQuery(async () => {
    const elsewhere = await deskElsewhere();
    if (!elsewhere) return null;
    const place = await serverPlace();
    const changed = place ? notCopiedSince(place) : null;
    return { ...elsewhere, unsent: elsewhere.why !== 'giving' && changed !== null };
  });
