import { partShare, topicsOf } from '@/core/analysis/subgroups';
import { totalShare } from '@/core/scoring/scoreAttempt';
import { seatsOf } from '@/core/seats/seats';
import { progress, sittingFrame } from './queries';
import { desk } from './tables';

/** Another sitting of the same student's, with what it came to. */
export interface EarlierPaper {
  sittingId: string;
  title: string;
  opensAt: string;
  total: number;
  max: number;
  /** Of what is marked, 0 to 1; null while nothing is. */
  share: number | null;
  /** By tag, the share of its points; only tags whose answers have points. */
  topics: { name: string; share: number }[];
}

/** Older ones than so many are not looked through. */
const mostPapers = 20;

/** A student's other sittings, the latest first; those of a rehearsal or a share are none. @param sittingId '' for all of them */
export async function earlierPapers(
  studentId: string,
  sittingId: string,
  now: number,
): Promise<EarlierPaper[]> {
  const attempts = await desk.attempts.where({ studentId }).toArray();
  const ids = [...new Set(attempts.map((attempt) => attempt.sittingId))].filter((id) => id !== sittingId);
  const sittings = (await desk.sittings.bulkGet(ids))
    .filter((sitting) => sitting !== undefined)
    .filter(({ rehearsal, share }) => !rehearsal && !share)
    .sort((a, b) => b.opensAt.localeCompare(a.opensAt));
  const papers = await Promise.all(
    sittings.slice(0, mostPapers).map(async ({ id, title, opensAt }): Promise<EarlierPaper | null> => {
      const [frame, student] = await Promise.all([
        sittingFrame(id, new Set([studentId])),
        desk.students.get(studentId),
      ]);
      if (!frame || !student) return null;
      const own = attempts.filter((attempt) => attempt.sittingId === id);
      const [marks, allowances] = await Promise.all([
        desk.marks
          .where('attemptId')
          .anyOf(own.map((attempt) => attempt.id))
          .toArray(),
        desk.allowances.where({ sittingId: id, studentId }).toArray(),
      ]);
      const rows = { students: [student], attempts: own, marks, allowances, releases: [], openings: [] };
      const card = seatsOf({ ...frame, ...rows }, now)[0]?.scorecard;
      return card
        ? {
            ...{ sittingId: id, title, opensAt, total: card.total, max: card.max },
            share: totalShare(card),
            topics: topicsOf(frame.questions).flatMap(({ name, ids }) => {
              const share = partShare({ scorecard: card }, new Set(ids));
              return share === null ? [] : [{ name, share }];
            }),
          }
        : null;
    }),
  );
  return papers.filter((paper) => paper !== null);
}

/** One of a student’s results, with how the class did. */
export interface StudentResult extends EarlierPaper {
  /** Mean share of the points of those who are in; null while nobody has any. */
  classMean: number | null;
}

/** All that a student sat, the earliest first. */
export async function studentResults(studentId: string, now: number): Promise<StudentResult[]> {
  const papers = await earlierPapers(studentId, '', now);
  const results = await Promise.all(
    papers.map(async (paper): Promise<StudentResult> => {
      const sitting = await desk.sittings.get(paper.sittingId);
      const stands = sitting && (await progress(sitting, now));
      return { ...paper, classMean: stands?.progress.meanShare ?? null };
    }),
  );
  return results.sort((a, b) => (a.opensAt < b.opensAt ? -1 : 1));
}
