import { useEffect, useRef, useState } from 'react';
import { nextToMark } from '@/core/marking/nextToMark';
import type { SameAnswers } from '@/core/marking/sameAnswers';

/** Where the marker is among the answers. Until something was done, the first that waits is where marking begins. */
export function useMarkPosition(groups: readonly SameAnswers[]) {
  const first = () => (nextToMark(groups, null) ?? groups[0])?.id ?? null;
  const [currentId, setCurrentId] = useState(first);
  // Piles come a moment after the answers.
  const [begun, setBegun] = useState(false);
  const startId = begun ? currentId : first();
  const current = groups.find((group) => group.id === startId) ?? groups[0];

  // Held keys come faster than drawing: they act on where the marker is, not on what was last drawn.
  const at = useRef(current?.id ?? null);
  const hasBegun = useRef(false);
  useEffect(() => {
    // Not by what was drawn last: a key may have come since.
    if (!hasBegun.current) at.current = current?.id ?? null;
  }, [current]);
  /** Where the list puts the row that the marker goes to: in sight, or at the top. */
  const align = useRef<'auto' | 'start'>('auto');
  /** From now on the marker is where the marker went. */
  const begin = (id: string) => {
    if (!hasBegun.current) setCurrentId(id);
    hasBegun.current = true;
    setBegun(true);
  };
  const goTo = (id: string, to: 'auto' | 'start' = 'auto') => {
    align.current = to;
    at.current = id;
    hasBegun.current = true;
    setBegun(true);
    setCurrentId(id);
  };
  return { current, at, align, begin, goTo };
}
