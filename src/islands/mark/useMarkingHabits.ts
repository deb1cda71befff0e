import { useLiveQuery } from 'dexie-react-hooks';
import { keepMarkingHabits, markingHabits, type MarkingHabits } from '@/store/markingHabits';

const usual: MarkingHabits = { goesOn: false, order: 'short', pauseAfter: 45 };

/** How the marker likes to mark, kept on the desk. */
export function useMarkingHabits() {
  const habits = useLiveQuery(markingHabits) ?? usual;
  return { habits, keepHabits: keepMarkingHabits };
}
