import type { IncomingStudent } from '../formats/csv/studentRows';

/** Students of a list who go into one group; `group` is null for the one that the list is brought into. */
export interface Place {
  group: string | null;
  students: IncomingStudent[];
}

/** Whether two names are of the same group: nobody has a group "monday" beside a group "Monday". */
export const sameGroup = (a: string, b: string) => groupKey(a) === groupKey(b);

const groupKey = (name: string) => name.trim().toLowerCase();

/**
 * Where the students of a list go: each into the groups that his row names, or into the one the list is brought into.
 *
 * @param own the name of the group that the list is brought into
 */
export function placesOf(incoming: readonly IncomingStudent[], own: string): Place[] {
  const places = new Map<string, Place>();
  for (const student of incoming)
    for (const named of student.groups ?? [own]) {
      const group = sameGroup(named, own) ? null : named;
      const key = group === null ? '' : `group ${groupKey(group)}`;
      const place = places.get(key) ?? { group, students: [] };
      if (!place.students.includes(student)) place.students.push(student);
      places.set(key, place);
    }
  return [...places.values()];
}
