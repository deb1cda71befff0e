import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { ownMarker, settledMarker } from '@/core/model/mark';
import type { MarkingShare } from '@/core/model/share';
import { desk } from '@/store/tables';

/** What a marker is called. */
export function markerName(markerId: string, shares: readonly MarkingShare[]): string {
  if (markerId === ownMarker) return 'You';
  if (markerId === settledMarker) return 'Settled';
  return shares.find(({ id }) => id === markerId)?.marker ?? 'Another marker';
}

/** What markers of a sitting are called in the middle of a sentence. */
export function useMarkerNames(sittingId: string): (markerId: string) => string {
  const shares = useLiveQuery(() => desk.shares.where({ sittingId }).toArray(), [sittingId]);
  return useMemo(() => (id: string) => (id === ownMarker ? 'you' : markerName(id, shares ?? [])), [shares]);
}
