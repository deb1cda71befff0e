import { useRef } from 'react';
import { worked, type Stretch } from '@/core/marking/pause';
import { sayToRead } from '@/desk/act';
import { counted } from '@/words/format';

/** Told of each act of marking, it says once when a pause is due. */
export function usePauseReminder(afterMinutes: number | null): () => void {
  const stretch = useRef<Stretch | null>(null);
  return () => {
    const next = worked(stretch.current, Date.now(), afterMinutes === null ? null : afterMinutes * 60_000);
    stretch.current = next.stretch;
    if (next.due && afterMinutes !== null)
      sayToRead(`You have been marking for ${counted(afterMinutes, 'minute')}: a short pause keeps it fair`);
  };
}
