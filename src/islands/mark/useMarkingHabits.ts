import { useLiveQuery } from 'dexie-react-hooks';
import { keepMarkingHabits, markingHabits, usualHabits } from '@/store/markingHabits';

/** How the marker likes to mark, kept on the desk. */
export function useMarkingHabits() {
  const habits = useLiveQuery(markingHabits) ?? usualHabits;
  return { habits, keepHabits: keepMarkingHabits };
}
