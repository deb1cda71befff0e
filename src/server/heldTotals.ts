import { wholeTotals } from '@/core/handback/wholeTotals';
import type { PaperVersion } from '@/core/model/paper';
import type { Student } from '@/core/model/people';
import type { Allowance, Attempt, Sitting } from '@/core/model/sitting';
import { scoredQuestions } from '@/core/repair/scoredQuestions';
import { seatsOf } from '@/core/seats/seats';
import { studentFrom, type MailboxRows } from './sealedRows';

/** For so long the figures of a class are not computed anew. */
const classHoldsMs = 15_000;

/** The whole totals of classes, held for a while. */
export function heldTotals(
  { rows }: MailboxRows,
  paperVersion: (paperId: string, version: number) => Promise<PaperVersion | undefined>,
) {
  /** The whole totals of a class, by the key alone: what is marked by hand is on the desk. */
  const totalsNow = async (sitting: Sitting, now: number): Promise<number[]> => {
    const version = sitting.paperVersion;
    const paper = version === null ? undefined : await paperVersion(sitting.paperId, version);
    if (!paper) return [];
    const ofSitting = <T extends { sittingId: string }>(all: readonly T[]) =>
      all.filter(({ sittingId }) => sittingId === sitting.id);
    const attempts = ofSitting(await rows<Attempt>('attempts/'));
    const who = new Set(attempts.map(({ studentId }) => studentId));
    const records = {
      ...{ sitting, questions: scoredQuestions(paper, []), attempts, marks: [], releases: [], openings: [] },
      students: (await rows<Student>('students/')).filter(({ id }) => who.has(id)).map(studentFrom),
      allowances: ofSitting(await rows<Allowance>('allowances/')),
    };
    return wholeTotals(seatsOf(records, now));
  };
  const totals = new Map<string, { at: number; all: Promise<number[]> }>();
  return (sitting: Sitting, now: number): Promise<number[]> => {
    const known = totals.get(sitting.id);
    if (known && now >= known.at && now - known.at < classHoldsMs) return known.all;
    const all = totalsNow(sitting, now);
    totals.set(sitting.id, { at: now, all });
    return all;
  };
}
