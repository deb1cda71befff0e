import { useEffect, useState } from 'react';
import type { Question } from '@/core/kinds';
import type { EarlierMarks } from '@/core/marking/putForward';
import { earlierMarks } from '@/store/earlierMarks';

const none: EarlierMarks = new Map();

/** What equal answers to the same question have in earlier sittings: looked up once, when the question is opened. */
export function useEarlierMarks(sittingId: string, question: Question): EarlierMarks {
  const [found, setFound] = useState(none);
  useEffect(() => {
    let here = true;
    void earlierMarks(sittingId, question).then((marks) => here && setFound(marks));
    return () => {
      here = false;
    };
  }, [sittingId, question]);
  return found;
}
