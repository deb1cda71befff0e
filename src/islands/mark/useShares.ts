import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { takenBack } from '@/core/marking/shares/content';
import type { HandMark } from '@/core/model/mark';
import { markerName } from '@/desk/markerNames';
import type { MarkingShare } from '@/core/model/share';
import type { SittingData } from '@/desk/useSitting';
import { desk } from '@/store/tables';

export interface Shares {
  shares: MarkingShare[];
  /** Every mark there is, those of a blind sample among them: they lie apart, and never count. */
  marks: readonly HandMark[];
  nameOf: (markerId: string) => string;
}

/** The shares of a sitting, oldest first, with the marks made of them; undefined while they are read. */
export function useShares(sitting: SittingData): Shares | undefined {
  const sittingId = sitting.sitting.id;
  const shares = useLiveQuery(
    async () =>
      (await desk.shares.where({ sittingId }).toArray()).sort(
        (a, b) => a.givenAt.localeCompare(b.givenAt) || a.marker.localeCompare(b.marker),
      ),
    [sittingId],
  );
  const apart = useLiveQuery(
    async () =>
      shares &&
      desk.marks
        .where('sittingId')
        .anyOf(shares.filter(({ way }) => way === 'here').map(({ id }) => id))
        .toArray(),
    [shares],
  );
  const { questions, marks } = sitting;
  return useMemo(() => {
    if (!shares || !apart) return undefined;
    const most = new Map(questions.map(({ id, points }) => [id, points]));
    const again = shares
      .filter(({ way }) => way === 'here')
      .flatMap(
        (share) =>
          takenBack(share, { marks: apart.filter((mark) => mark.sittingId === share.id) }, most).marks,
      );
    return {
      shares,
      marks: [...marks, ...again],
      nameOf: (id) => markerName(id, shares),
    };
  }, [shares, apart, questions, marks]);
}
