import { scriptFor } from '@/core/exchange';
import type { Student } from '@/core/model/people';
import type { Sitting } from '@/core/model/sitting';
import { deskRepository } from './deskRepository';
import { desk } from './tables';

/** Who has a place in these sittings: their groups, their guests, and whoever sat one and left its group. */
export async function studentsOf(sittings: readonly Sitting[]): Promise<Student[]> {
  const found = new Map<string, Student>();
  const add = (students: readonly (Student | undefined)[]) => {
    for (const student of students) if (student && student.role !== 'tryOut') found.set(student.id, student);
  };
  add(
    await desk.students
      .where('groupIds')
      .anyOf(sittings.flatMap(({ groupIds }) => groupIds))
      .distinct()
      .filter(({ archivedAt }) => archivedAt === undefined)
      .toArray(),
  );
  const ids = new Set(sittings.map(({ id }) => id));
  add(await desk.students.filter(({ onlySittingId }) => ids.has(onlySittingId ?? '')).toArray());
  for (const { id } of sittings) {
    const sat = (await desk.attempts.where('sittingId').equals(id).toArray()).map((each) => each.studentId);
    add(await desk.students.bulkGet(sat.filter((studentId) => !found.has(studentId))));
  }
  return [...found.values()];
}

/** A student's script as it is let out, without noting that it was looked at. */
export const scriptOf = (sitting: Sitting, student: Student, now: number) =>
  scriptFor(deskRepository, student, sitting, now);
