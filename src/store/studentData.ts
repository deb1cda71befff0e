import {
  attemptData,
  type AttemptData,
  type StudentData,
  type StudentSitting,
} from '@/core/people/studentData';
import type { Attempt } from '@/core/model/sitting';
import { pagesOf } from './forget';
import { desk } from './tables';

/** Gathers all that the desk holds about one student; null where there is no such student. */
export async function studentData(studentId: string): Promise<StudentData | null> {
  const student = await desk.students.get(studentId);
  if (!student) return null;
  const [groups, attempts, allowances, requests, messages, releases, openings, pages, books] =
    await Promise.all([
      desk.groups.bulkGet(student.groupIds),
      desk.attempts.where({ studentId }).toArray(),
      desk.allowances.filter((each) => each.studentId === studentId).toArray(),
      desk.requests.filter((each) => each.studentId === studentId).toArray(),
      desk.outbox.filter((each) => each.studentId === studentId).toArray(),
      desk.releases.where({ studentId }).toArray(),
      desk.openings.where({ studentId }).toArray(),
      pagesOf(studentId),
      desk.markBooks.toArray(),
    ]);
  const all = [attempts, allowances, requests, messages, releases, pages].flat();
  const ids = [...new Set(all.map(({ sittingId }) => sittingId))];
  const found = (await desk.sittings.bulkGet(ids)).filter((sitting) => sitting !== undefined);
  const of = <T extends { sittingId: string }>(rows: readonly T[], id: string) =>
    rows.filter(({ sittingId }) => sittingId === id);
  const sittings = await Promise.all(
    found.map(async (sitting): Promise<StudentSitting> => {
      const { id, title, opensAt, paperId } = sitting;
      const mine = of(attempts, id).sort((a, b) => a.number - b.number);
      return {
        ...{ title, opensAt },
        attempts: await Promise.all(mine.map((attempt) => inWords(attempt, paperId))),
        allowances: of(allowances, id),
        requests: of(requests, id),
        messages: of(messages, id),
        handedBackAt: of(releases, id)[0]?.releasedAt ?? null,
        heldBack: of(releases, id)[0]?.heldBack?.reason ?? null,
        pages: of(pages, id).length,
        openedAt: of(openings, id)[0]?.at ?? [],
      };
    }),
  );
  return {
    student,
    groups: groups.flatMap((group) => group?.name ?? []),
    typed: books.flatMap((book) =>
      book.columns.flatMap((column) => {
        const points = column.kind === 'typed' ? (column.values[studentId] ?? null) : null;
        const excused = column.excused.includes(studentId);
        const title =
          column.kind === 'typed' ? column.title : found.find(({ id }) => id === column.sittingId)?.title;
        return points === null && !excused
          ? []
          : [{ book: book.title, column: title ?? '', points, excused }];
      }),
    ),
    sittings: sittings.sort((a, b) => a.opensAt.localeCompare(b.opensAt)),
  };
}

async function inWords(attempt: Attempt, paperId: string): Promise<AttemptData> {
  const version = await desk.paperVersions.get([paperId, attempt.paperVersion]);
  const paper = version ?? (await desk.papers.get(paperId));
  const marks = await desk.marks.where('attemptId').equals(attempt.id).toArray();
  return attemptData(attempt, paper?.questions ?? [], marks);
}
