import { useCallback, useEffect, useRef, useState } from 'react';
import type { Carrier, HomeSitting } from '@/carriers/Carrier';
import { announce } from '@/ui/announce';
import { AskTeacher } from './AskTeacher';

interface AskInsideProps {
  carrier: Carrier;
  joinCode: string;
  sittingId: string;
}

/** How often the other side is asked while an answer is waited for, or while it could not be reached. */
const lookMs = 15_000;

/** Asking the teacher without leaving the paper; an answer comes in here, and is said. What came by hand has nobody to ask. */
export function AskInside({ carrier, joinCode, sittingId }: AskInsideProps) {
  const [sitting, setSitting] = useState<HomeSitting | null>(null);
  const waited = useRef(false);
  const look = useCallback(async () => {
    const sittings = await carrier.home(joinCode).catch(() => null);
    // Without a connection it stays as it was, and is looked at again.
    if (!sittings) return;
    const found = sittings.find((each) => each.sittingId === sittingId) ?? null;
    const answer = found?.requests.at(-1)?.answer;
    if (waited.current && answer)
      announce(`Your teacher has answered: ${answer.granted ? 'granted' : 'declined'}`);
    waited.current = answer === null;
    setSitting(found);
  }, [carrier, joinCode, sittingId]);
  useEffect(() => void look(), [look]);
  const again = sitting === null || sitting.requests.at(-1)?.answer === null;
  useEffect(() => {
    if (!again) return;
    const timer = setInterval(() => void look(), lookMs);
    return () => clearInterval(timer);
  }, [again, look]);
  if (!sitting || sitting.inFile) return null;
  return <AskTeacher carrier={carrier} joinCode={joinCode} sitting={sitting} asked={() => void look()} />;
}
