import { buildDemo } from '@demo/buildDemo';
import { filesIn } from '@/core/basics/filesIn';
import type { DeskTables } from '@/core/formats/backup';

/** Every seventh student of the demo: enough for tests of what is done with a desk whatever its size. */
const isKept = (studentId: string) => Number(studentId.replace('student', '')) % 7 === 1;

/** The demo course with fewer students, and what hangs on them; all papers and sittings. */
export function smallDemo(now: number): DeskTables {
  const desk = buildDemo(now);
  const gone = desk.attempts.filter(({ studentId }) => !isKept(studentId));
  const goneIds = new Set<unknown>(
    [...gone, ...filesIn(gone.map(({ answers }) => answers))].map(({ id }) => id),
  );
  const stays = (row: { id?: unknown; studentId?: unknown; attemptId?: unknown }) =>
    !goneIds.has(row.id) &&
    !goneIds.has(row.attemptId) &&
    (typeof row.studentId !== 'string' || isKept(row.studentId));
  const tables = Object.entries(desk).map(([name, rows]) => [name, (rows as object[]).filter(stays)]);
  const few = Object.fromEntries(tables) as DeskTables; // table by table as they were
  return { ...few, students: desk.students.filter(({ id }) => isKept(id)) };
}
