import { sumBy } from 'remeda';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { Student } from '@/core/model/people';
import type { Scan } from '@/core/model/scan';
import { itemsOf } from '@/core/kinds/items';
import type { Question } from '@/core/kinds';
import { desk } from './tables';

/** All there is of one sitting on paper. */
export interface OnPaper {
  prints: AnswerPaper[];
  scans: Scan[];
  /** By version. */
  questions: Map<number, Question[]>;
  students: Map<string, Student>;
  /** Pages that were read of files that were not read to their end. */
  halfRead: Scan[];
}

export async function onPaperOf(sittingId: string): Promise<OnPaper> {
  const sitting = await desk.sittings.get(sittingId);
  const [prints, scans, halfRead] = await Promise.all([
    desk.prints.where({ sittingId }).toArray(),
    desk.scans.where({ sittingId }).toArray(),
    desk.readPages.where({ sittingId }).toArray(),
  ]);
  const versions = await desk.paperVersions
    .where('paperId')
    .equals(sitting?.paperId ?? '')
    .toArray();
  const ids = [...new Set(prints.flatMap(({ copies }) => copies.flatMap((id) => id ?? [])))];
  const students = await desk.students.bulkGet(ids);
  return {
    prints: prints.sort((a, b) => a.at.localeCompare(b.at)),
    scans,
    questions: new Map(versions.map(({ version, questions }) => [version, itemsOf(questions)])),
    students: new Map(students.flatMap((student) => (student ? [[student.id, student] as const] : []))),
    halfRead,
  };
}

/** How many bytes the pictures of a sitting's pages take. */
export const picturesSize = (scans: readonly Scan[]): number =>
  sumBy(scans, ({ picture, pictureGoneAt }) => (pictureGoneAt === undefined ? picture.size : 0));
