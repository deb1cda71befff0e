import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { SittingData } from '@/desk/useSitting';
import { desk } from '@/store/tables';

/** What questions are called: of a share, as on the paper that it was made of. */
export function useQuestionNumbers({ sitting, questions }: SittingData): ReadonlyMap<string, string> {
  const taken = useLiveQuery(
    () => (sitting.share ? desk.takenShares.get(sitting.id) : undefined),
    [sitting.id, sitting.share],
  );
  return useMemo(() => {
    const own = numbersOf(questions);
    return taken?.numbers
      ? new Map([...own].map(([id, number]) => [id, taken.numbers?.[id] ?? number]))
      : own;
  }, [questions, taken]);
}
